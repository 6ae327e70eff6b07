import { stepNow, type Next } from './cursor'
import { KINDS } from './kinds'
import type { Bench } from './log/types'

/** Where the work stands: each kind of step says what is next in it. */
export function nextOf(bench: Bench): Next {
  const step = stepNow(bench)
  if (bench.state === 'closed' || !step) return { kind: 'closed' }
  return KINDS[step.kind].next(bench, step)
}
