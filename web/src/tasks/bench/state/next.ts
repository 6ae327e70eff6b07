import { turns32, type Turns32 } from '../../../domain/turns'
import { isOwed } from './overlay'
import type { Bench, Lap, Step } from './types'

/** The one next thing on the bench. */
export type Next =
  | { kind: 'tick'; step: Step }
  | { kind: 'turn'; step: Step; lap: Lap; lapNo: number; rod: number; then: number | null; owed: Turns32 }
  | { kind: 'passes-done'; step: Step; lap: Lap; lapNo: number }
  | { kind: 'read'; step: Step; lap: Lap; lapNo: number; rod: number | null }
  | { kind: 'cleared'; step: Step; lap: Lap; lapNo: number }
  /** Not clear, and no turn in whole steps would help. */
  | { kind: 'stuck'; step: Step; lap: Lap; lapNo: number }
  | { kind: 'rest'; step: Step }
  | { kind: 'close'; step: Step }
  | { kind: 'closed' }

export const stepNow = (bench: Bench): Step | undefined => bench.steps.find((step) => !step.done)

/** Rods of a lap still to turn, in working order. */
export function owedRods(lap: Lap): number[] {
  return lap.order.filter((rod) => lap.rods.some((each) => each.rod === rod && isOwed(each)))
}

function turning(step: Step, lap: Lap, lapNo: number): Next | null {
  const [rod, then = null] = owedRods(lap)
  if (rod === undefined) return null
  const owed = lap.rods.find((each) => each.rod === rod)?.owed_32 ?? 0
  return { kind: 'turn', step, lap, lapNo, rod, then, owed: turns32(owed) }
}

function inPasses(step: Step): Next {
  for (const [lapNo, lap] of step.laps.entries()) {
    const next = turning(step, lap, lapNo)
    if (next) return next
  }
  const lapNo = step.laps.length - 1
  return { kind: 'passes-done', step, lap: step.laps[lapNo] as Lap, lapNo }
}

function inClearing(bench: Bench, step: Step): Next {
  const lapNo = step.laps.length - 1
  const lap = step.laps[lapNo] as Lap
  if (lap.plan?.clear) return { kind: 'cleared', step, lap, lapNo }
  if (lap.plan) return turning(step, lap, lapNo) ?? { kind: 'stuck', step, lap, lapNo }
  const unread = bench.tapping_order.find((number) => {
    const rod = lap.rods.find((each) => each.rod === number)
    return !rod?.reading && !rod?.reference
  })
  return { kind: 'read', step, lap, lapNo, rod: unread ?? null }
}

export function nextOf(bench: Bench): Next {
  const step = stepNow(bench)
  if (bench.state === 'closed' || !step) return { kind: 'closed' }
  switch (step.kind) {
    case 'passes':
      return inPasses(step)
    case 'clear':
      return inClearing(bench, step)
    case 'rest':
      return { kind: 'rest', step }
    case 'close':
      return { kind: 'close', step }
    default:
      return { kind: 'tick', step }
  }
}

/** The step that follows, for the words on the big button. */
export function following(bench: Bench, step: Step): Step | undefined {
  return bench.steps.slice(bench.steps.indexOf(step) + 1).find((each) => !each.done)
}
