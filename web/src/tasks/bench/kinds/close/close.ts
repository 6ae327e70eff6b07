import { NO_ACTS, SPACE, type KindView } from '../kind'

/** The end of the job. */
export const close: KindView = {
  next: (_, step) => ({ kind: 'close', step }),
  main: (given) => ({ words: 'Close the job', key: SPACE, run: given.close }),
  quiet: () => NO_ACTS,
}
