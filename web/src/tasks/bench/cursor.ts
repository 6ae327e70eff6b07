import type { Turns32 } from '../../domain/turns'
import type { Bench, Cadence, Lap, Step } from './log/types'

interface Turning {
  kind: 'turn'
  step: Step
  lap: Lap
  lapNo: number
  /** Rods confirmed together: one, two facing ones, or the whole pass. */
  group: number[]
  rod: number
  then: number | null
  owed: Turns32
  by: Cadence
}

/** The one next thing on the bench. */
export type Next =
  /** A step with nothing more to say of where in it one is. */
  | { kind: 'at'; step: Step }
  | Turning
  | { kind: 'passes-done'; step: Step; lap: Lap; lapNo: number }
  | { kind: 'read'; step: Step; lap: Lap; lapNo: number; rod: number | null }
  | { kind: 'cleared'; step: Step; lap: Lap; lapNo: number }
  /** Not clear, and no turn in whole steps would help. */
  | { kind: 'stuck'; step: Step; lap: Lap; lapNo: number }
  | { kind: 'closed' }

export type Of<K extends Next['kind']> = Extract<Next, { kind: K }>

export const stepNow = (bench: Bench): Step | undefined => bench.steps.find((step) => !step.done)

/** The step that follows, for the words on the big button. */
export function following(bench: Bench, step: { id: string }): Step | undefined {
  const at = bench.steps.findIndex((each) => each.id === step.id)
  return bench.steps.slice(at + 1).find((each) => !each.done)
}

/** How many rods a round tells of; by ear the one compared with is one of them. */
export const rodsRead = (lap: Lap): number => lap.rods.filter((rod) => rod.reading || rod.reference).length
