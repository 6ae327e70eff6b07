import { doneAct, NO_ACTS, type KindView } from '../kind'

/** Something to do and look at. */
export const tick: KindView = {
  next: (_, step) => ({ kind: 'tick', step }),
  main: (given) => (given.next.kind === 'tick' ? doneAct(given, given.next.step) : null),
  quiet: () => NO_ACTS,
}
