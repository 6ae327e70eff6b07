import styled from 'styled-components'
import { hz } from '../../domain/pitch'
import { amountOf, turns32 } from '../../domain/turns'
import { Num, Soft } from '../../ui/Page'
import type { Next } from './state/next'
import type { Bench, Lap } from './state/types'

/** Turns since finger-tight, in words: all alike, or from the least to the most. */
function tallyWords(bench: Bench): string {
  const turns = bench.tally?.map((each) => each.turns_32) ?? []
  if (!turns.length)
    return bench.procedure === 'settling-check'
      ? 'not counted from fingers in this job'
      : 'counts from finger-tight'
  const [least, most] = [Math.min(...turns), Math.max(...turns)]
  if (least === most) return `every rod ${amountOf(turns32(least))} from fingers`
  return `${amountOf(turns32(least))} to ${amountOf(turns32(most))} from fingers`
}

function roundWords(lap: Lap | null): string {
  const plan = lap?.plan
  if (!plan) {
    const heard = lap?.rods.filter((rod) => rod.reading).length ?? 0
    return lap ? `${heard} of ${lap.rods.length} rods read` : ''
  }
  if (plan.clear) return `within ${hz(plan.spread_hz)} Hz round ${hz(plan.mean_hz)}`
  return `within ${hz(plan.predicted_spread_hz)} Hz round ${hz(plan.predicted_mean_hz)}`
}

interface Props {
  bench: Bench
  next: Next
  waiting: boolean
}

/** What is known at this moment: the last entry, the round, pitch and tally. */
export function Strip({ bench, next, waiting }: Props) {
  const clear = bench.steps.find((step) => step.kind === 'clear')
  const lap =
    clear && (next.kind === 'read' || next.kind === 'cleared' || clear.laps.some((each) => each.plan))
      ? (clear.laps.at(-1) ?? null)
      : null
  const shown = lap && !lap.plan && next.kind !== 'read' ? (clear?.laps.at(-2) ?? lap) : lap
  const last = bench.undo[0]
  return (
    <Foot aria-label="Now">
      <p>
        <b>Last entry{waiting ? ', on its way' : ''}</b>
        <span>{last?.words ?? 'none yet'}</span>
      </p>
      <p>
        <b>{shown?.plan ? (shown.plan.clear ? 'This round' : 'Expected after this round') : 'This round'}</b>
        <span>{roundWords(shown) || <Soft>not tapped yet</Soft>}</span>
      </p>
      <p>
        <b>Pitch: {shown?.plan ? (shown.plan.clear ? 'clear' : 'not yet clear') : 'not read'}</b>
        <span>
          {shown?.plan ? (
            <>
              spread <Num>{hz(shown.plan.spread_hz)}</Num>, up to <Num>{hz(shown.plan.allowed_hz)}</Num> is
              even
            </>
          ) : (
            <Soft>tap round to know</Soft>
          )}
        </span>
      </p>
      <p>
        <b>By the tally</b>
        <span>{tallyWords(bench)}</span>
      </p>
    </Foot>
  )
}

const Foot = styled.footer`
  grid-area: strip;
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 8px 24px;
  align-items: center;
  padding: 14px 28px;
  background: var(--lifted);
  border-top: 1px solid var(--rule);
  font-size: 14.5px;
  line-height: 1.35;
  > p > b,
  > p > span {
    display: block;
  }
  b {
    font-weight: 650;
    font-size: 15px;
  }
  @media (max-width: 1000px) {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  @media (max-width: 700px) {
    padding: 10px 16px;
    font-size: 13.5px;
  }
`
