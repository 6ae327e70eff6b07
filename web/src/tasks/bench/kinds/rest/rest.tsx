import { RestPanel } from './RestPanel'
import { doneAct, NO_ACTS, SPACE, type KindView } from '../kind'

/** A wait with a clock. */
export const rest: KindView = {
  Panel: ({ bench, next }) => (next.kind === 'at' ? <RestPanel step={next.step} job={bench.id} /> : null),
  next: (_, step) => ({ kind: 'at', step }),
  main: (given) => {
    const { next, enter, now, leave } = given
    if (next.kind !== 'at') return null
    const { step } = next
    if (!step.resting_until)
      return {
        words: `Rest it ${step.minutes} minutes`,
        key: SPACE,
        run: () => enter({ kind: 'rest', step: step.id, minutes: step.minutes }),
      }
    if (new Date(step.resting_until).getTime() > now)
      return { words: 'To what is owed', key: SPACE, run: leave }
    return doneAct(given, step)
  },
  quiet: ({ next, enter }) =>
    next.kind === 'at'
      ? [
          {
            words: 'Rested enough',
            key: 'F',
            run: () => enter({ kind: 'step_done', step: next.step.id }),
          },
        ]
      : NO_ACTS,
}
