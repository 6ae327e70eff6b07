import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { hz as hertz } from '../../domain/pitch'
import { Quiet } from '../../ui/Button'
import { Num, Soft } from '../../ui/Page'
import { FamilyPicture, RingPicture } from '../../ui/TapPictures'

interface Props {
  tap: Schemas['TapOut']
  chosen: boolean
  onChoose: () => void
  onPlay: () => void
}

/** '−6 dB' with a true minus, held together. */
const decibels = (db: number): string => `${Math.round(db)}\u00a0dB`.replace('-', '−')

const glideWords = (cents: number): string =>
  cents > 3 ? `${Math.round(cents)} cents sharp at the stroke` : 'no glide'

export function TapRow({ tap, chosen, onChoose, onPlay }: Props) {
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
        {tap.second_hz ? (
          <em>
            or <Num>{hertz(tap.second_hz)}</Num> Hz, {Math.round(100 * (tap.second_chance ?? 0))} in 100
          </em>
        ) : null}
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
  em {
    display: block;
    font-style: normal;
    font-size: 15px;
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
