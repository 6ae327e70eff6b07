import { TickPanel } from './TickPanel'
import { doneAct, NO_ACTS, SPACE, type KindView } from '../kind'

/** Something to do and look at. */
export const tick: KindView = {
  next: (_, step) => ({ kind: 'at', step }),
  main: (given) => {
    if (given.next.kind !== 'at') return null
    const { step } = given.next
    const open = step.asks.find((each) => each.needed && !each.values.length)
    return open
      ? { words: `First: ${open.words.toLowerCase()}?`, key: SPACE, run: () => {}, off: true }
      : doneAct(given, step)
  },
  quiet: () => NO_ACTS,
  Panel: ({ next }) => (next.kind === 'at' ? <TickPanel step={next.step} /> : null),
}
