import type { Bench, Step } from '../../log/types'
import type { Act } from '../../Actions'
import { RestPanel } from './RestPanel'
import { doneAct, NO_ACTS, SPACE, type Given, type KindView } from '../kind'

/** Clearings before this rest that nobody went over again since; where it is about both heads, each head's last. */
export function toClearOnceMore(bench: Bench, step: Step): Step[] {
  const before = bench.steps.slice(
    0,
    bench.steps.findIndex((each) => each.id === step.id),
  )
  const cleared = before.filter(
    (each) => each.kind === 'clear' && each.done && (step.side === null || each.side === step.side),
  )
  const last = new Map(cleared.map((each) => [each.side, each]))
  return [...last.values()].filter((each) => each.laps.length > 0 && !each.laps.some((lap) => lap.afresh))
}

const over = (step: Step, now: number): boolean =>
  step.resting_until !== null && new Date(step.resting_until).getTime() <= now

const onceMore = ({ bench, enter }: Given, step: Step, key: string): Act => ({
  words: bench.heads.length > 1 && step.side ? `Clear the ${step.side} once more` : 'Clear it once more',
  key,
  run: () => enter({ kind: 'once_more', step: step.id }),
})

/** A wait with a clock; when it is over, what was cleared before is cleared once more. */
export const rest: KindView = {
  Panel: ({ bench, next }) =>
    next.kind === 'at' ? (
      <RestPanel
        step={next.step}
        job={bench.id}
        again={toClearOnceMore(bench, next.step).length > 0}
        cleared={bench.steps.some((step) => step.laps.some((lap) => lap.afresh))}
      />
    ) : null,
  next: (_, step) => ({ kind: 'at', step }),
  main: (given) => {
    const { bench, next, enter, now, leave } = given
    if (next.kind !== 'at') return null
    const { step } = next
    if (!step.resting_until)
      return {
        words: `Rest it ${step.minutes} minutes`,
        key: SPACE,
        run: () => enter({ kind: 'rest', step: step.id, minutes: step.minutes }),
      }
    if (!over(step, now)) return { words: 'To what is owed', key: SPACE, run: leave }
    const [again] = toClearOnceMore(bench, step)
    return again ? onceMore(given, again, SPACE) : doneAct(given, step)
  },
  quiet: (given) => {
    const { bench, next, enter, now } = given
    if (next.kind !== 'at') return NO_ACTS
    const { step } = next
    const [first, ...more] = toClearOnceMore(bench, step)
    const rested = over(step, now)
    return [
      ...more.map((each) => onceMore(given, each, '>')),
      ...(first && step.resting_until && !rested ? [onceMore(given, first, 'R')] : []),
      ...(rested && !first
        ? []
        : [
            {
              words: rested ? 'It holds: go on' : 'Rested enough',
              key: 'F',
              run: () => enter({ kind: 'step_done', step: step.id }),
            },
          ]),
    ]
  },
}
