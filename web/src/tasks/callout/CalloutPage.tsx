import { useMemo, useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { putAway } from '../../api/outbox'
import { mayChange, useSession } from '../../api/session'
import { Plain } from '../../ui/Button'
import { Page, Problem } from '../../ui/Page'
import { useStageHere } from '../../ui/theme'
import { useKeys } from '../../ui/useKeys'
import { useNow } from '../../ui/useNow'
import { Waiting } from '../../ui/Waiting'
import { Bag } from './Bag'
import { ClockDialog } from './ClockDialog'
import { minutesLeft } from './log/fold'
import { planNow } from './log/plan'
import { Note } from './Note'
import { Plan } from './Plan'
import { useCallout } from './useCallout'
import { Walk } from './Walk'
import { minutesWords } from './words'

const ROOMS = [
  ['bag', 'Bag'],
  ['walk', 'Walk'],
  ['plan', 'Now'],
  ['note', 'Note'],
] as const
const PLAN_MS = 5000
type Room = (typeof ROOMS)[number][0]

/** A worn kit, minutes left: walk it, do the one thing that helps most now, write to whom it belongs. */
export function CalloutPage() {
  const { callout: id = '' } = useParams()
  const called = useCallout(id)
  useStageHere()
  if (called.error) return <Problem>{called.error.message}</Problem>
  return called.callout && called.form && called.stands ? <Opened key={id} called={called} /> : <Waiting />
}

type Called = ReturnType<typeof useCallout>

/** Where one goes on: the bag before the clock is set, then the walk, then what is to be done, at last the note. */
function roomFor({ book, stands }: Called): Room {
  if (!book || !stands?.clock) return 'bag'
  if (stands.over) return 'note'
  return book.drums.every((drum) => !drum.tag || stands.looked.has(drum.tag)) ? 'plan' : 'walk'
}

function Opened({ called }: { called: Called }) {
  const { callout, book, form, stands, enter, device, on } = called
  const now = useNow(1000)
  const may = mayChange(useSession().data)
  const [query, setQuery] = useSearchParams()
  const [clock, setClock] = useState(false)
  const [first] = useState(() => roomFor(called))
  const room = ROOMS.find(([name]) => name === query.get('at'))?.[0] ?? first
  const go = (to: Room) => setQuery({ at: to }, { replace: true })
  const step = (by: number) => {
    const at = ROOMS.findIndex(([name]) => name === room) + by
    const next = ROOMS[Math.max(0, Math.min(ROOMS.length - 1, at))]
    if (next) go(next[0])
  }
  // Planned anew with every entry, and as the minutes run.
  const at = Math.floor(now / PLAN_MS) * PLAN_MS
  const plan = useMemo(
    () => (book && stands ? planNow(book, stands, at, device) : null),
    [book, stands, at, device],
  )
  useKeys({ '[': () => step(-1), ']': () => step(1) })
  if (!callout || !book || !form || !stands || !plan) return null
  const left = minutesLeft(stands, now)
  return (
    <Page>
      <Top>
        <div>
          <h1>{[callout.name, callout.at].filter(Boolean).join(', ')}</h1>
          <p>
            {stands.done.size} done
            {stands.cannot.size ? `, ${stands.cannot.size} cannot` : ''}
            {stands.over ? ', over' : ''}
          </p>
        </div>
        <button type="button" onClick={() => setClock(true)} disabled={!may} title="Change the minutes left">
          <time>{stands.clock ? minutesWords(left) : minutesWords(callout.minutes)}</time>
          <span>
            {!stands.clock
              ? 'not running'
              : stands.over
                ? 'over'
                : left > 0
                  ? `plan needs ${minutesWords(plan.needs)}`
                  : 'they play'}
          </span>
        </button>
      </Top>
      <Rooms aria-label="Parts of the call-out">
        {ROOMS.map(([name, words]) => (
          <button
            key={name}
            type="button"
            aria-current={name === room ? 'page' : undefined}
            onClick={() => go(name)}
          >
            {words}
          </button>
        ))}
      </Rooms>
      {called.refused.map((entry) => (
        <Refused key={entry.event.id}>
          <Problem>{entry.message}</Problem>
          <Plain onPress={() => void putAway(entry)}>Seen</Plain>
        </Refused>
      ))}
      {room === 'bag' ? (
        <Bag {...{ callout, stands, enter, may }} onBegin={() => go('walk')} />
      ) : room === 'walk' ? (
        <Walk {...{ book, stands, enter, may }} onWalked={() => go('plan')} />
      ) : room === 'plan' ? (
        <Plan
          {...{ book, stands, enter, may, plan, now }}
          onWalk={() => go('walk')}
          onNote={() => go('note')}
        />
      ) : (
        <Note {...{ callout, book, form, stands, on, enter, may }} waiting={called.waiting} />
      )}
      {clock ? (
        <ClockDialog
          {...{ stands, enter }}
          left={left}
          onClose={() => setClock(false)}
          onOver={() => go('note')}
        />
      ) : null}
    </Page>
  )
}

const Top = styled.header`
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 14px 28px 8px;
  h1 {
    font-size: 21px;
  }
  p {
    padding-top: 3px;
    color: var(--soft);
    font-size: 15px;
  }
  > button {
    flex: none;
    display: grid;
    justify-items: end;
    padding: 0;
    border: 0;
    background: transparent;
    cursor: pointer;
  }
  time {
    font: 700 40px/1 var(--mono);
    letter-spacing: -0.05em;
    font-variant-numeric: tabular-nums;
  }
  > button span {
    padding-top: 5px;
    color: var(--soft);
    font-size: 14px;
  }
  @media (max-width: 700px) {
    padding: 12px 16px 6px;
    h1 {
      font-size: 19px;
    }
  }
`
const Rooms = styled.nav`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 6px;
  padding: 6px 28px 0;
  max-width: 560px;
  button {
    min-height: 44px;
    border: 0;
    border-bottom: 2px solid var(--rule);
    background: transparent;
    color: var(--soft);
    font-weight: 550;
    cursor: pointer;
  }
  button[aria-current] {
    border-bottom: 4px solid var(--ink);
    color: var(--ink);
    font-weight: 650;
  }
  @media (max-width: 700px) {
    padding: 4px 16px 0;
    max-width: none;
  }
`
const Refused = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 8px 16px 0;
  p {
    flex: 1;
  }
`
