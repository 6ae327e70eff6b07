import type { Body } from '../../../api/outbox'
import { near, holds, type Fact, type When } from './conditions'
import type { Answer, Cadence, Finding, Mark, Means, Side, Uneven } from './types'

/** One entry that counts, whoever made it. */
export interface Counted {
  id: string
  by: string
  at: string
  device: string
  body: Body
  words: string
}

export interface Read extends Mark {
  typed: string
  tap: string
  /** It was asked about, and somebody said that it is so. */
  sure: boolean
}

/** A pass or round while folding. */
export interface FoldedLap {
  order: number[]
  each: number | null
  until: string
  readings: Map<number, Read>
  ear: Map<number, Read>
  numbers: Map<number, Read>
  turned: Map<number, Mark & { turns_32: number | null }>
  whole: string
  centre: (Mark & { typed: string }) | null
  plan: Planned | null
  /** The turns were asked for, and the server has not answered yet. */
  asked: boolean
  /** Rods read between turns, in their order. */
  between: (Read & { rod: number })[]
  /** What was left after the last of them, what had been turned by then, and which rods were turned since. */
  left: Planned | null
  before: Map<number, number>
  since: Set<number>
  /** The first round after a rest: the head has moved meanwhile. */
  afresh: boolean
}

export type Planned = Mark & { turns: Map<number, number> }

/** Where a job stands while its log is folded; the same few rules as the core's, and nothing computed. */
export interface Folded {
  answer: Answer
  done: Map<string, Mark>
  laps: Map<string, FoldedLap[]>
  rests: Map<string, string>
  targets: Map<Side, { event: string; typed: string }>
  uneven: Map<Side, { event: string; what: Uneven }>
  step_32: number
  means: Means
  reference: number | null
  by: { up: Cadence; down: Cadence }
  found: Map<string, Finding>
  answers: Map<string, Mark & { values: string[] }>
  notes: string[]
  closed: boolean
  live: Counted[]
}

export const LOST = 'rod-missing'

export const freshLap = (order: number[], each: number | null, until = ''): FoldedLap => ({
  order,
  each,
  until,
  readings: new Map(),
  ear: new Map(),
  numbers: new Map(),
  turned: new Map(),
  whole: '',
  centre: null,
  plan: null,
  asked: false,
  between: [],
  left: null,
  before: new Map(),
  since: new Set(),
  afresh: false,
})

/** A rod was turned, or skipped; what it was turned before what is left was planned is added. */
export function turnRod(lap: FoldedLap, rod: number, turns_32: number | null, mark: Mark): void {
  const before = lap.before.get(rod)
  lap.turned.set(rod, { ...mark, turns_32: before === undefined ? turns_32 : before + (turns_32 ?? 0) })
  lap.since.add(rod)
}

/** From here on this is what is left to turn. */
export function planLeft(lap: FoldedLap, plan: Planned): void {
  lap.left = plan
  partLeft(lap)
}

/** What was turned by now is counted apart from what is turned from here on. */
export function partLeft(lap: FoldedLap): void {
  lap.before = new Map(
    [...lap.turned].flatMap(([rod, { turns_32 }]) => (turns_32 === null ? [] : [[rod, turns_32]])),
  )
  lap.since = new Set()
}

type PlanStep = Answer['plan'][number]

function beginStep(laps: Map<string, FoldedLap[]>, answer: Answer, step: PlanStep): void {
  if (step.kind === 'passes')
    laps.set(
      step.id,
      step.passes.map((each) => freshLap(each.order, each.each_32, each.until)),
    )
  if (step.kind === 'clear') laps.set(step.id, [freshLap(headOf(answer, step.side).turning_order, null)])
}

/** The plan changed: steps in which nothing was entered begin as it has them now. */
export function beginWhatIsLeft(state: Folded): void {
  const begun = new Set([
    ...state.done.keys(),
    ...state.live.flatMap(({ body }) => ('step' in body && body.step ? [body.step] : [])),
  ])
  for (const step of state.answer.plan) if (!begun.has(step.id)) beginStep(state.laps, state.answer, step)
}

/** A job nothing was entered on: all passes lie there, and the first round of each clearing. */
export function begin(answer: Answer): Folded {
  const laps = new Map<string, FoldedLap[]>()
  for (const step of answer.plan) beginStep(laps, answer, step)
  return {
    answer,
    done: new Map(),
    laps,
    rests: new Map(),
    targets: new Map(),
    uneven: new Map(),
    step_32: answer.step_32,
    means: answer.means,
    reference: null,
    by: { up: answer.cadence, down: answer.slacken_by },
    found: new Map(),
    answers: new Map(),
    notes: [],
    closed: false,
    live: [],
  }
}

type PlanHead = Answer['heads'][number]
const NO_HEAD: PlanHead = {
  side: 'batter',
  new_head: '',
  old_head: '',
  reason: '',
  rods: 0,
  lost: [],
  beside_bed: [],
  beside_port: [],
  pairs: [],
  tapping_order: [],
  turning_order: [],
  pattern_note: '',
  shelf: '',
  left: null,
  above_cents: 0,
  target_words: '',
  settling_words: '',
}

/** The head of this side as the job began; of no side, the first. */
export const headOf = (answer: Answer, side: Side | null): PlanHead =>
  answer.heads.find((each) => each.side === side) ?? answer.heads[0] ?? NO_HEAD

/** Rods found missing on the way and not put back. */
export const lostSince = (state: Folded, side: Side | null): Set<number> =>
  new Set(
    [...state.found.values()]
      .filter((each) => each.finding === LOST && !each.put_right && each.side === side)
      .map((each) => each.rod ?? 0),
  )

/** Rods of a lap still to turn, in working order. */
export function owedIn(lap: FoldedLap, gone: ReadonlySet<number>): number[] {
  const asked = (rod: number) =>
    lap.each === null ? ((lap.left ?? lap.plan)?.turns.get(rod) ?? 0) : lap.each
  return lap.order.filter((rod) => asked(rod) && !lap.since.has(rod) && !gone.has(rod))
}

/** What conditions ask about: what was found, and what was chosen, told apart by its name. */
export const facts = (state: Folded): Fact[] => [
  ...state.found.values(),
  ...[...state.answers].flatMap(([question, { values }]) =>
    values.map((value) => ({ finding: `${question}=${value}`, degree: 3, side: '' })),
  ),
]

/** Steps that show: those whose condition holds with what was found, and those already done. */
export function shownSteps(state: Folded): Answer['plan'] {
  const known = facts(state)
  return state.answer.plan.filter(
    (step) => state.done.has(step.id) || holds(step.when as When, near(step.side, known)),
  )
}
