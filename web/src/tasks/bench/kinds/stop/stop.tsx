import { NO_ACTS, SPACE, type KindView } from '../kind'
import { TickPanel } from '../tick/TickPanel'

/** The work cannot go on at this bench: the job waits here until the drum is back. */
export const stop: KindView = {
  next: (_, step) => ({ kind: 'at', step }),
  main: ({ leave }) => ({ words: 'To what is owed', key: SPACE, run: leave }),
  quiet: ({ next, enter }) =>
    next.kind === 'at'
      ? [
          {
            words: 'It is back, go on',
            key: 'F',
            run: () => enter({ kind: 'step_done', step: next.step.id }),
          },
        ]
      : NO_ACTS,
  Panel: ({ next }) => (next.kind === 'at' ? <TickPanel step={next.step} /> : null),
}
