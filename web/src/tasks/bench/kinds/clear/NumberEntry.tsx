import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import styled from 'styled-components'
import { letterKeysOn } from '../../../../ui/letters'
import type { Means } from '../../log/types'

interface Props {
  /** What is read: 'rod 3', 'the middle'. */
  what: string
  round: number
  /** A question about what was typed stands; once it is answered the field is in hand again. */
  asked: boolean
  means: Means
  typed: string
  onTyped: (typed: string) => void
  problem: string
  onKeep: () => void
  onStep: (by: number) => void
  /** Deeds under their letters, while nothing is typed: the field holds the keyboard. */
  letterKeys?: Readonly<Record<string, () => void>>
}

const LABELS: Record<Means, string> = {
  pitch: 'Pitch at',
  ear: '',
  gauge: 'Gauge at',
  torque: 'Key slips at',
}
const HINTS: Record<Means, string> = {
  pitch: 'hertz, or a note such as F3 +12; a ? after it if you doubt it',
  ear: '',
  gauge: 'the number as it stands, in any scale; a ? after it if you doubt it',
  torque: 'the setting at which the key slips',
}

/** While a pitch is typed, letters from A to H begin a note; what is switched off is typed. */
const isKey = (key: string, means: Means): boolean =>
  key.length > 1 || key === ' ' || (letterKeysOn() && !(means === 'pitch' && /[a-h]/i.test(key)))

const plainKey = (event: KeyboardEvent): boolean => !event.ctrlKey && !event.metaKey && !event.altKey

/** Type what one rod reads; Enter keeps it and goes on to the next. */
export function NumberEntry({
  what,
  round,
  asked,
  means,
  typed,
  onTyped,
  problem,
  onKeep,
  onStep,
  letterKeys,
}: Props) {
  const field = useRef<HTMLInputElement>(null)
  const [letters, setLetters] = useState(false)
  useEffect(() => {
    field.current?.focus({ preventScroll: true })
    field.current?.select() // a reading that is opened again is written over
  }, [what, round, asked])
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && !(letterKeys?.['Enter'] && !typed)) onKeep()
    else if (event.key === 'ArrowDown') onStep(1)
    else if (event.key === 'ArrowUp') onStep(-1)
    else if (!typed && plainKey(event) && letterKeys?.[event.key] && isKey(event.key, means))
      letterKeys[event.key]?.()
    else return
    event.preventDefault()
  }
  return (
    <Entry data-problem={problem ? true : undefined}>
      <label htmlFor="reading">
        {LABELS[means]} {what}
      </label>
      <input
        id="reading"
        ref={field}
        value={typed}
        onChange={(event) => onTyped(event.target.value)}
        onKeyDown={onKey}
        inputMode={letters ? 'text' : 'decimal'}
        autoComplete="off"
        aria-invalid={problem ? true : undefined}
        aria-describedby="reading-hint"
      />
      {means === 'pitch' ? (
        <button type="button" onClick={() => setLetters(!letters)}>
          {letters ? '123' : 'abc'}
        </button>
      ) : null}
      <small id="reading-hint" role={problem ? 'alert' : undefined}>
        {problem || HINTS[means]}
      </small>
    </Entry>
  )
}

const Entry = styled.div`
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: end;
  gap: 2px 10px;
  label,
  small {
    grid-column: 1 / -1;
    grid-row: auto;
    font-size: 14px;
    color: var(--soft);
  }
  input {
    min-width: 0;
    height: 56px;
    padding: 0 4px;
    border: 0;
    border-bottom: 2px solid var(--ink);
    background: var(--lifted);
    font: 400 34px var(--mono);
    letter-spacing: -0.03em;
    outline-offset: 0;
  }
  button {
    min-width: 56px;
    min-height: 48px;
    border: 1px solid var(--rule);
    background: none;
    border-radius: 2px;
    color: var(--soft);
    @media (min-width: 1001px) {
      display: none;
    }
  }
  &[data-problem] input {
    border-bottom: 5px double var(--ink);
  }
  &[data-problem] small {
    color: var(--ink);
    font-weight: 650;
  }
`
