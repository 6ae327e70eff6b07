import type { ComponentType } from 'react'
import type { Body } from '../../../api/outbox'
import type { Act } from '../Actions'
import type { Bench, Means, Step, Uneven } from '../log/types'
import { following, type Next } from '../cursor'
import type { Exceptions } from './passes/useExceptions'
import type { Judgement } from './clear/EarButtons'
import type { Reading } from './clear/reading'

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
  /** The instruction that fits what is next. */
  Panel: ComponentType<PanelProps>
  main: (given: Given) => Act | null
  quiet: (given: Given) => Act[]
}

/** Everything that can be done now. */
export interface Deeds {
  main: Act | null
  quiet: Act[]
  reading: Reading
  exceptions: Exceptions
  turned: (turns: number) => void
  target: (typed: string) => void
  means: (means: Means, reference?: number) => void
  whole: (judged: Judgement) => void
  uneven: (what: Uneven, start: number) => void
  closing: {
    reason: string
    onReason: (reason: string) => void
    check: boolean
    onCheck: (check: boolean) => void
  }
}

export interface PanelProps {
  bench: Bench
  next: Next
  deeds: Deeds
  onWhy: () => void
  checkDays: number
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
