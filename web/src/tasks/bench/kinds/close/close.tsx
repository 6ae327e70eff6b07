import { ClosePanel } from './ClosePanel'
import { NO_ACTS, SPACE, type KindView } from '../kind'

/** The end of the job. */
export const close: KindView = {
  next: (_, step) => ({ kind: 'at', step }),
  main: (given) => ({ words: 'Close the job', key: SPACE, run: given.close }),
  quiet: () => NO_ACTS,
  Panel: ({ bench, deeds, checkDays }) => <ClosePanel bench={bench} days={checkDays} {...deeds.closing} />,
}
