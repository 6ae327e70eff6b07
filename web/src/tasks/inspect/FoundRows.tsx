import styled from 'styled-components'
import { Plain } from '../../ui/Button'
import { Soft } from '../../ui/Page'
import type { Look, Mark, Tick, WalkDrum } from './log/fold'
import { degreeWords, placeWords } from './words'

export interface KnownRow extends Mark {
  row: number | null
  at: string
}

interface Props {
  drum: WalkDrum
  look: Look
  known: readonly KnownRow[]
  inHand: string | null
  tickOf: (finding: string) => Tick | undefined
  mayChange: boolean
  onTake: (mark: Mark) => void
  onStill: (row: number) => void
  onGone: (row: number) => void
  onAway: (mark: Mark) => void
}

/** A part that is to be fetched is owed. */
const fetched = (tick: Tick | undefined): boolean => tick?.id.endsWith('-missing') ?? false

/** What was seen on this drum so far, and what stands from earlier visits. */
export function FoundRows(props: Props) {
  const { drum, look, known, inHand, tickOf, mayChange, onTake, onStill, onGone, onAway } = props
  if (!look.marks.length && !known.length) return null
  return (
    <Rows aria-label="Found on this drum">
      {look.marks.map((mark) => {
        const tick = tickOf(mark.finding)
        const place = [mark.side, placeWords(mark, drum)].filter(Boolean).join(', ')
        return (
          <li
            key={mark.event}
            data-owed={fetched(tick) || undefined}
            data-hand={mark.event === inHand || undefined}
          >
            <button type="button" onClick={() => onTake(mark)}>
              <b>{tick?.words ?? mark.finding}</b>
              {place ? <span>, {place}</span> : null}
              {mark.note ? <small> “{mark.note}”</small> : null}
            </button>
            <em>{fetched(tick) ? 'fetch one' : degreeWords(tick, mark.degree)}</em>
            {mayChange ? (
              <Plain aria-label={`Take back: ${tick?.words ?? mark.finding}`} onPress={() => onAway(mark)}>
                ×
              </Plain>
            ) : null}
          </li>
        )
      })}
      {known.map((each) => {
        const tick = tickOf(each.finding)
        const place = [each.side, placeWords(each, drum)].filter(Boolean).join(', ')
        const row = each.row
        const said = row === null ? '' : look.again.has(row) ? 'still so' : look.gone.has(row) ? 'gone' : ''
        return (
          <li key={each.event} data-known data-said={said || undefined}>
            <span>
              {tick?.words ?? each.finding}
              {place ? `, ${place}` : ''} <Soft>{degreeWords(tick, each.degree)}, last time</Soft>
            </span>
            {mayChange && row !== null ? (
              <>
                <Plain aria-pressed={said === 'still so'} onPress={() => onStill(row)}>
                  Still so
                </Plain>
                <Plain aria-pressed={said === 'gone'} onPress={() => onGone(row)}>
                  Gone
                </Plain>
              </>
            ) : null}
          </li>
        )
      })}
    </Rows>
  )
}

const Rows = styled.ul`
  border-top: 1px solid var(--rule);
  li {
    display: flex;
    align-items: center;
    gap: 6px;
    min-height: 46px;
    border-bottom: 1px solid var(--rule);
    font-size: 15.5px;
    line-height: 1.25;
  }
  li > button:first-child {
    flex: 1;
    min-width: 0;
    min-height: 46px;
    padding: 4px 0;
    border: 0;
    background: transparent;
    text-align: left;
    cursor: pointer;
  }
  li > span {
    flex: 1;
    min-width: 0;
    padding: 6px 0;
  }
  li[data-hand] b {
    text-decoration: underline;
    text-decoration-thickness: 2px;
    text-underline-offset: 4px;
  }
  li[data-owed] {
    color: var(--red);
  }
  em {
    font-style: normal;
    color: var(--soft);
  }
  li[data-owed] em {
    color: inherit;
    font-weight: 650;
  }
  li[data-said='gone'] > span {
    text-decoration: line-through;
  }
  small {
    color: var(--soft);
    font-size: 13.5px;
  }
  li > button:not(:first-child) {
    min-height: 44px;
    min-width: 44px;
    padding: 0 10px;
    justify-content: center;
    border-color: transparent;
    font: 500 14.5px var(--text);
  }
  li > button[aria-pressed='true'] {
    border-color: var(--ink);
  }
`
