import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import styled from 'styled-components'
import { hz, looksLikePitch } from '../../../domain/pitch'
import { Num } from '../../../ui/Page'
import { PlanView } from '../../../ui/PlanView'
import type { Next } from '../state/next'
import type { Bench } from '../state/types'
import { Big, Cautions, Label, Panel, Why } from './parts'
import { TargetLine } from './TargetLine'

type Reading = Extract<Next, { kind: 'read' }>

interface Props {
  bench: Bench
  next: Reading
  /** The rod being read, when not simply the next. */
  rod: number | null
  typed: string
  onTyped: (typed: string) => void
  problem: string
  onKeep: () => void
  onStep: (by: number) => void
  onTarget: (typed: string) => void
}

/** Type the pitch at one rod; Enter keeps it and goes on to the next. */
export function ReadPanel({ bench, next, rod, typed, onTyped, problem, onKeep, onStep, onTarget }: Props) {
  const field = useRef<HTMLInputElement>(null)
  const [letters, setLetters] = useState(false)
  useEffect(() => {
    field.current?.focus({ preventScroll: true })
  }, [rod, next.lapNo])
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') onKeep()
    else if (event.key === 'ArrowDown') onStep(1)
    else if (event.key === 'ArrowUp') onStep(-1)
    else return
    event.preventDefault()
  }
  const heard = next.lap.rods.filter((each) => each.reading).length
  return (
    <Panel>
      {next.lapNo === 0 && heard === 0 ? <Cautions of={next.step.cautions} /> : null}
      <Two>
        <div aria-live="polite" data-testid="instruction">
          <Label>
            {rod === null
              ? `Round ${next.lapNo + 1}: every rod is read`
              : `Round ${next.lapNo + 1}, tap at rod`}
          </Label>
          <Big>{rod ?? heard}</Big>
        </div>
        <PlanView
          rods={bench.rods}
          lost={bench.lost}
          badge={bench.badge}
          now={rod}
          owed={false}
          middle={bench.badge === 'none' ? '' : 'badge up'}
          size={160}
          label={rod ? `Head from above: tap at rod ${rod}` : 'Head from above'}
        />
      </Two>
      {rod === null ? (
        <Why>Change one by choosing its number in the ladder, or let the turns be worked out.</Why>
      ) : (
        <Entry data-problem={problem ? true : undefined}>
          <label htmlFor="reading">Pitch at rod {rod}</label>
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
          <button type="button" onClick={() => setLetters(!letters)}>
            {letters ? '123' : 'abc'}
          </button>
          <small id="reading-hint" role={problem ? 'alert' : undefined}>
            {problem || 'hertz, or a note such as F3 +12'}
          </small>
        </Entry>
      )}
      <TargetLine bench={bench} lap={next.lap} onTarget={onTarget} />
      {next.lap.compared ? (
        <Why>{next.lap.compared}</Why>
      ) : rod !== null && heard === 0 ? (
        <Why>{next.step.say}</Why>
      ) : null}
      {next.lapNo > 0 && next.step.laps[next.lapNo - 1]?.plan ? (
        <Label>
          Expected now: within <Num>{hz(next.step.laps[next.lapNo - 1]?.plan?.predicted_spread_hz ?? 0)}</Num>{' '}
          Hz round <Num>{hz(next.step.laps[next.lapNo - 1]?.plan?.predicted_mean_hz ?? 0)}</Num>.
        </Label>
      ) : null}
    </Panel>
  )
}

/** A slip of the keys is said at once; what the pitch means is the server's to judge. */
export const readingProblem = (typed: string): string =>
  looksLikePitch(typed) ? '' : 'Give a pitch in hertz, such as 174.9, or a note with cents, such as F3 +12.'

const Two = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  > svg {
    margin: -6px -12px 0 0;
  }
  @media (max-width: 700px) {
    > svg {
      width: 118px;
      height: 118px;
    }
  }
`
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
    height: 62px;
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
