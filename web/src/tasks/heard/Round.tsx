import styled from 'styled-components'
import { hz as hertz } from '../../domain/pitch'
import { Num, Soft } from '../../ui/Page'
import { PlanView } from '../../ui/PlanView'
import { FamilyPicture, RingPicture } from '../../ui/TapPictures'
import { Quiet } from '../../ui/Button'
import type { Schemas } from '../../api/client'

type HeardOn = Schemas['TapsOut']
type Tap = Schemas['TapOut']

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
            <Soft as="p">A whole round of heard taps tells the two pitches of the head and their line.</Soft>
          )}
          {centre ? (
            <p>
              In the middle the drum’s note is <Num>{hertz(centre)}</Num> Hz.
            </p>
          ) : null}
        </div>
        {pair ? (
          <PlanView
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
          <Row
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

interface RowProps {
  tap: Tap
  chosen: boolean
  onChoose: () => void
  onPlay: () => void
}

/** '−6 dB' with a true minus, held together. */
const decibels = (db: number): string => `${Math.round(db)}\u00a0dB`.replace('-', '−')

const glideWords = (cents: number): string =>
  cents > 3 ? `${Math.round(cents)} cents sharp at the stroke` : 'no glide'

function Row({ tap, chosen, onChoose, onPlay }: RowProps) {
  const where = tap.rod ? `rod ${tap.rod}` : 'the middle'
  return (
    <Line data-refused={tap.status === 'refuse' || undefined}>
      <b>{tap.rod ?? 'mid'}</b>
      <div>
        {tap.hz ? (
          <>
            <Num>{hertz(tap.hz)}</Num> Hz <Soft>± {(1.96 * (tap.cents_sigma ?? 0)).toFixed(1)} cents</Soft>
          </>
        ) : (
          'Not taken'
        )}
        <small>
          {tap.reason || glideWords(tap.glide_cents)}, {decibels(tap.strength_db)}
          {tap.simulated ? ', simulated' : ''}
          {tap.other_muted ? '' : ', other head ringing'}
        </small>
      </div>
      <RingPicture
        ring={tap.picture}
        label={`How the tap at ${where} rang away and settled: ${glideWords(tap.glide_cents)}`}
      />
      <FamilyPicture partials={tap.partials} read={tap.hz} />
      <span>
        {tap.has_sound ? (
          <>
            <Quiet onPress={onPlay} aria-label={`Play ${where}`}>
              Play
            </Quiet>
            <Quiet onPress={onChoose} aria-label={`Compare ${where}`} aria-pressed={chosen}>
              {chosen ? '✓ Compare' : 'Compare'}
            </Quiet>
          </>
        ) : null}
      </span>
    </Line>
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
const Line = styled.li`
  display: grid;
  grid-template-columns: 40px minmax(150px, 1fr) 170px 170px 192px;
  align-items: center;
  gap: 8px 18px;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
  > b {
    font: 650 30px/1 var(--slab);
  }
  small {
    display: block;
    color: var(--soft);
    font-size: 13.5px;
    line-height: 1.35;
  }
  &[data-refused] > b {
    color: var(--soft);
  }
  @media (max-width: 900px) {
    grid-template-columns: 40px minmax(130px, 1fr) 140px 140px 116px;
    gap: 8px 12px;
  }
  @media (max-width: 760px) {
    grid-template-columns: 44px minmax(0, 1fr);
    > svg,
    > span {
      grid-column: 2;
    }
    > span {
      margin-left: -18px;
    }
  }
`
