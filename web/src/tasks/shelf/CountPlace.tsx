import { useMutation } from '@tanstack/react-query'
import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { newId } from '../../domain/ids'
import { likelyCount, unlikely, type Unlikely } from '../../domain/likely'
import { Main, Plain } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'
import { Question } from '../../ui/Question'
import { useDraft } from '../../ui/useDraft'
import { useStockChanged } from './useShelf'

type Place = Schemas['PlaceOut']
type PlaceLine = Schemas['PlaceLine']

interface Props {
  place: Place
  /** The line a label was of; `n` tells one scan from the next. */
  pointed: { line: number; n: number } | null
  onDone: () => void
  onClose: () => void
}

const keyOf = (line: PlaceLine): string => `${line.line}/${line.batch}`
const whole = (text: string): boolean => /^\d+$/.test(text.trim())

/** One place: a figure for each line. It is kept on this device until it went in. */
export function CountPlace({ place, pointed, onDone, onClose }: Props) {
  const changed = useStockChanged()
  const [said, setSaid, forget] = useDraft<Record<string, string>>(`count:${place.place}`, {})
  const [id] = useState(newId)
  const list = useRef<HTMLUListElement>(null)
  useEffect(() => {
    if (!pointed) return
    const field = list.current?.querySelector<HTMLInputElement>(`[data-line="${pointed.line}"] input`)
    field?.scrollIntoView({ block: 'center' })
    field?.focus()
    field?.select()
  }, [pointed])
  const count = useMutation({
    mutationFn: (lines: Schemas['CountSaid'][]) =>
      unwrap(api.POST('/api/shelf/counts', { body: { id, place: place.place, said: lines } })),
    onSuccess: () => {
      forget()
      changed()
      onDone()
    },
  })
  const set = (line: PlaceLine, value: string) => setSaid({ ...said, [keyOf(line)]: value })
  const [sure, setSure] = useState<Record<string, string>>({})
  const doubtOf = (line: PlaceLine) => {
    const typed = said[keyOf(line)]?.trim() ?? ''
    return typed === sure[keyOf(line)] ? null : unlikely(typed, likelyCount(line.count))
  }
  const entered = place.lines.filter((line) => whole(said[keyOf(line)] ?? ''))
  const doubted = entered.find((line) => doubtOf(line))
  const lines = entered.map((line) => ({
    line: line.line,
    batch: line.batch,
    count: Number(said[keyOf(line)]),
  }))
  if (count.data) return <Counted found={count.data} onClose={onClose} />
  return (
    <>
      <List ref={list}>
        {place.lines.map((line) => (
          <li key={keyOf(line)} data-line={line.line} data-pointed={pointed?.line === line.line || undefined}>
            <span>
              {line.called}
              {line.batch ? <Soft>, batch {line.batch}</Soft> : null}
            </span>
            <Soft>{line.count} by the book</Soft>
            <Plain
              onPress={() => set(line, String(line.count))}
              aria-label={`${line.called}: as the book says`}
              aria-pressed={said[keyOf(line)] === String(line.count)}
            >
              {line.count} ✓
            </Plain>
            <input
              data-stop
              inputMode="numeric"
              aria-label={`${line.called}: how many are there`}
              value={said[keyOf(line)] ?? ''}
              onChange={(event) => set(line, event.target.value)}
              onKeyDown={onwards}
            />
            {doubtOf(line) ? (
              <Question
                doubt={doubtOf(line) as Unlikely}
                onPut={(typed) => set(line, typed)}
                onSo={() => setSure({ ...sure, [keyOf(line)]: said[keyOf(line)]?.trim() ?? '' })}
              />
            ) : null}
          </li>
        ))}
      </List>
      {count.error ? <Problem>{count.error.message} What you counted stays on this device.</Problem> : null}
      <Foot>
        <Plain onPress={onClose}>Places</Plain>
        <Main
          data-stop
          isDisabled={!lines.length || Boolean(doubted) || count.isPending}
          onPress={() => count.mutate(lines)}
        >
          {lines.length === place.lines.length
            ? 'All counted'
            : `${lines.length} of ${place.lines.length} counted`}
        </Main>
      </Foot>
    </>
  )
}

/** Enter goes on: to the next count, and from the last to the press that keeps them, which it does not press yet. */
function onwards(event: KeyboardEvent<HTMLInputElement>): void {
  if (event.key !== 'Enter') return
  event.preventDefault()
  const stops = [...document.querySelectorAll<HTMLElement>('[data-stop]')]
  stops[stops.indexOf(event.currentTarget) + 1]?.focus()
}

function Counted({ found, onClose }: { found: Schemas['CountOut']; onClose: () => void }) {
  return (
    <Result role="status">
      <h2>
        {found.looked_at} looked at;{' '}
        {found.differ.length ? `${found.differ.length} differ` : 'all as the book said'}
      </h2>
      <ul>
        {found.differ.map((each) => (
          <li key={each.line}>
            {each.called}: {each.was} → <b>{each.now}</b>
          </li>
        ))}
      </ul>
      <Main onPress={onClose} autoFocus>
        Next place
      </Main>
    </Result>
  )
}

const List = styled.ul`
  border-top: 1px solid var(--ink);
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 116px auto 84px;
    align-items: center;
    gap: 14px;
    min-height: 62px;
    padding: 6px 28px;
    border-bottom: 1px solid var(--rule);
    font: 600 17px/1.25 var(--slab);
  }
  li > span:nth-child(2) {
    font: 400 14px var(--text);
  }
  li > [role='alert'] {
    grid-column: 1 / -1;
  }
  li[data-pointed] {
    background: var(--lifted);
  }
  input {
    min-height: 48px;
    width: 84px;
    padding: 4px 8px;
    border: 1.5px solid var(--ink);
    border-radius: 2px;
    background: transparent;
    font: 600 20px var(--mono);
    text-align: right;
  }
  button {
    font: 500 16px var(--mono);
  }
  button[aria-pressed='true'] {
    background: var(--faint);
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto 72px;
      padding: 8px 16px;
      gap: 10px;
    }
    li > span:nth-child(2) {
      display: none;
    }
    input {
      width: 72px;
    }
  }
`
const Foot = styled.footer`
  position: sticky;
  bottom: var(--above-rail);
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 12px 28px;
  margin-top: auto;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  > button:last-child {
    min-width: 280px;
  }
  @media (max-width: 700px) {
    padding: 8px 16px;
    > button:last-child {
      min-width: 0;
      flex: 1;
    }
  }
`
const Result = styled.div`
  display: grid;
  gap: 14px;
  padding: 18px 28px;
  max-width: 560px;
  li {
    padding: 8px 0;
    border-top: 1px solid var(--rule);
  }
`
