import type { Body } from '../../../api/outbox'
import type { Act } from '../Actions'
import type { Bench, Step } from '../log/types'
import { following, type Next } from '../cursor'
import type { Exceptions } from './passes/useExceptions'
import type { Reading } from './clear/useReading'

export interface Given {
  bench: Bench
  next: Next
  enter: (body: Body) => void
  open: (sheet: 'why' | 'otherwise' | 'found') => void
  mayChange: boolean
  reading: Reading
  exceptions: Exceptions
  now: number
  close: () => void
  leave: () => void
}

/** How a kind of step stands on the bench: what is next in it, the deed of the big button, and the ways out of the straight path. */
export interface KindView {
  next: (bench: Bench, step: Step) => Next
  main: (given: Given) => Act | null
  quiet: (given: Given) => Act[]
}

export const SPACE = 'space'

/** The step is done, and what comes after it. */
export function doneAct({ bench, enter }: Given, step: Step, words?: string): Act {
  const after = following(bench, step)
  return {
    words: words ?? (after ? `Done. Next: ${after.title.toLowerCase()}` : 'Done'),
    key: SPACE,
    run: () => enter({ kind: 'step_done', step: step.id }),
  }
}

export const NO_ACTS: Act[] = []
