import { TickPanel } from './TickPanel'
import { doneAct, NO_ACTS, type KindView } from '../kind'

/** Something to do and look at. */
export const tick: KindView = {
  next: (_, step) => ({ kind: 'at', step }),
  main: (given) => (given.next.kind === 'at' ? doneAct(given, given.next.step) : null),
  quiet: () => NO_ACTS,
  Panel: ({ next }) => (next.kind === 'at' ? <TickPanel step={next.step} /> : null),
}
