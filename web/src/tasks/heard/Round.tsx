import styled from 'styled-components'
import { hz as hertz } from '../../domain/pitch'
import { Num, Soft } from '../../ui/Page'
import { Bearing } from '../../ui/Bearing'
import type { Schemas } from '../../api/client'
import { TapRow } from './TapRow'

type HeardOn = Schemas['TapsOut']

interface Props {
  round: HeardOn['rounds'][number]
  heard: HeardOn
  chosen: readonly string[]
  onChoose: (tap: string) => void
  onPlay: (tap: string) => void
}

/** One round: the pair it rings with laid on the head, then every tap. */
export function Round({ round, heard, chosen, onChoose, onPlay }: Props) {
  const taps = heard.taps.filter((tap) => tap.step === round.step && tap.lap === round.lap)
  const { pair, centre_hz: centre } = round
  const whole = new Set(taps.map((tap) => tap.rod).filter(Boolean)).size >= round.rods
  const name = `${heard.part === 'heads' ? `${round.title}, ${round.side}: round` : 'Round'} ${round.lap + 1}`
  return (
    <Section aria-label={name}>
      <Top>
        <div>
          <h2>{name}</h2>
          {pair ? (
            <p>
              The head rings at <Num>{hertz(pair.lower_hz)}</Num> Hz along the dashed line and at{' '}
              <Num>{hertz(pair.upper_hz)}</Num> Hz across it.
            </p>
          ) : (
            <Soft as="p">
              {whole
                ? 'No two pitches stand apart in this round: each rod counts as it was read.'
                : 'A whole round of heard taps tells the two pitches of the head and their line.'}
            </Soft>
          )}
          {centre ? (
            <p>
              In the middle the drum’s note is <Num>{hertz(centre)}</Num> Hz.
            </p>
          ) : null}
        </div>
        {pair ? (
          <Bearing
            rods={round.rods}
            badge={heard.badge}
            axis={pair.axis_deg}
            size={132}
            label={`Head from above: the lower pitch rings along a line ${Math.round(pair.axis_deg)} degrees from the badge`}
          />
        ) : null}
      </Top>
      <ol>
        {taps.map((tap) => (
          <TapRow
            key={tap.id}
            tap={tap}
            chosen={chosen.includes(tap.id)}
            onChoose={() => onChoose(tap.id)}
            onPlay={() => onPlay(tap.id)}
          />
        ))}
      </ol>
    </Section>
  )
}

const Section = styled.section`
  padding: 20px 28px 8px;
  & + & {
    border-top: 1px solid var(--rule);
  }
  ol {
    list-style: none;
  }
  @media (max-width: 700px) {
    padding: 14px 16px 6px;
  }
`
const Top = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  gap: 20px;
  h2 {
    font-size: 22px;
    margin-bottom: 6px;
  }
  p {
    max-width: 56ch;
    text-wrap: pretty;
    line-height: 1.42;
  }
`
