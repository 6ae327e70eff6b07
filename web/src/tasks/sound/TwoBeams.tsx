import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { hz } from '../../domain/pitch'
import { Num, Soft } from '../../ui/Page'
import { FilmMargin } from './FilmMargin'

interface Props {
  plan: Schemas['TwoHeadsOut']
}

const TOP = 26
const BOTTOM = 206

/** Both heads as beams at the height of their pitch, and below them the note they make together. */
export function TwoBeams({ plan }: Props) {
  const pitches = [plan.batter.hz, plan.resonant.hz, plan.fundamental_hz]
  const low = Math.log2(Math.min(...pitches))
  const high = Math.log2(Math.max(...pitches))
  const y = (pitch: number): number =>
    BOTTOM - ((Math.log2(pitch) - low) / (high - low || 1)) * (BOTTOM - TOP)
  const [batter, resonant, drum] = [y(plan.batter.hz), y(plan.resonant.hz), y(plan.fundamental_hz)]
  const room = Math.max(1.5, drum - y(plan.fundamental_hz + 1.96 * plan.fundamental_sd_hz))
  return (
    <Wrap>
      <Say>{plan.character}</Say>
      <p>Because {plan.why}.</p>
      <Stage viewBox="0 0 640 236" role="img" aria-label="Both heads and the drum’s note by height of pitch">
        <rect x={0} y={drum - room} width={640} height={2 * room} />
        <path className="note" d={`M0 ${drum} H640`} />
        <path className="shell" d={`M40 ${batter} V${drum} M280 ${batter} V${drum}`} />
        <path className="shell" d={`M360 ${resonant} V${drum} M600 ${resonant} V${drum}`} />
        <path className="head" d={`M28 ${batter} H292`} />
        <path className="head" d={`M348 ${resonant} H612`} />
        <text x={160} y={batter + 26}>
          batter
        </text>
        <text x={480} y={resonant + 26}>
          resonant
        </text>
        <text x={320} y={drum + 18}>
          the drum
        </text>
      </Stage>
      <Row>
        <FilmMargin name="Batter at its rods" film={plan.batter} />
        <FilmMargin name="Resonant at its rods" film={plan.resonant} />
      </Row>
      <Together>
        <span>Together, tapped in the middle</span>
        <b>
          <Num>{hz(plan.fundamental_hz)}</Num> Hz
        </b>
        <Soft>
          {plan.fundamental_note}, give or take {hz(1.96 * plan.fundamental_sd_hz)}. A tenth more film moves
          it {plan.by_mass_hz.toFixed(1)} Hz, a tenth stiffer air {plan.by_air_hz.toFixed(1)}; a second note
          lies roughly at {plan.upper_hz.toFixed(0)} Hz. {plan.assumed}
        </Soft>
      </Together>
    </Wrap>
  )
}

const Wrap = styled.div`
  display: flex;
  flex-direction: column;
  gap: 10px;
`
const Say = styled.p`
  font: 600 27px/1.25 var(--slab);
  letter-spacing: -0.01em;
  &::first-letter {
    text-transform: uppercase;
  }
`
const Stage = styled.svg`
  display: block;
  width: 100%;
  max-height: 236px;
  path {
    fill: none;
    stroke: var(--ink);
  }
  .shell {
    stroke: var(--rule);
    stroke-width: 1.5;
  }
  .head {
    stroke-width: 6;
    stroke-linecap: round;
  }
  .note {
    stroke-width: 2;
    stroke-dasharray: 2 5;
  }
  rect {
    fill: var(--faint);
  }
  text {
    font: 500 14px var(--text);
    fill: var(--soft);
    text-anchor: middle;
  }
`
const Row = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px;
`
const Together = styled.div`
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding-top: 10px;
  border-top: 1px solid var(--rule);
  font-size: 14.5px;
  line-height: 1.4;
  b {
    font-size: 24px;
    font-weight: 600;
  }
`
