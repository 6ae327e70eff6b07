import { numberTyped } from '../../../domain/numbers'
import { asksOf } from './asks'
import { holds, near, type Fact, type When } from './conditions'
import {
  facts,
  headOf,
  lostSince,
  shownSteps,
  type Folded,
  type FoldedLap,
  type Planned,
  type Read,
} from './state'
import type { Answer, Bench, Head, Lap, Means, Plan, Reading, Rod, Side, Step } from './types'

type Figures = Answer['figures']

/** A reading this device has entered and the server has not read yet. */
const unread = (read: Read): Reading => ({
  event: read.event,
  by: read.by,
  at: read.at,
  shown: read.typed
    .replace('?', '')
    .replace(/^(\d+\.\d)\d+$/, (all) => Number(all).toFixed(1))
    .replace('-', ' ')
    .replace('cant tell', 'can’t tell'),
  hz: null,
  typed: read.typed,
  note: '',
  cents: null,
  doubtful: read.typed.endsWith('?'),
  tap: read.tap,
  sure: read.sure,
})

function reading(read: Read | undefined, rod: number, figures: Figures): Reading | null {
  if (!read) return null
  const plain = unread(read)
  const known = figures.readings.find((each) => each.entry === read.event && each.rod === rod)
  return known
    ? {
        ...plain,
        shown: known.shown,
        hz: known.hz,
        note: known.note,
        cents: known.cents,
        doubtful: known.doubtful,
      }
    : plain
}

function planOf(planned: Planned | null, figures: Figures): Plan | null {
  const known = planned && figures.plans.find((each) => each.entry === planned.event)
  if (!planned || !known) return null
  const { entry: event, rods: _, ...rest } = known
  return { ...rest, event, by: planned.by, at: planned.at }
}

/** The last tap between turns, as long as what is left after it is not known. */
function tapOpen(lap: FoldedLap): string {
  const last = lap.between.at(-1)?.event ?? ''
  return lap.left?.event === last ? '' : last
}

/** What a rod was turned, as long as no more of it is left. */
function turnedOf(lap: FoldedLap, rod: number): Rod['turned'] {
  const more = lap.left?.turns.get(rod) && !lap.since.has(rod)
  return more ? null : (lap.turned.get(rod) ?? null)
}

interface At {
  state: Folded
  step: Answer['plan'][number]
  number: number
}

function rodOf(
  rod: number,
  lap: FoldedLap,
  means: Means,
  { state, step }: At,
  reference: number | null,
): Rod {
  const { figures } = state.answer
  const planned = figures.plans
    .find((each) => each.entry === (lap.left ?? lap.plan)?.event)
    ?.rods.find((each) => each.rod === rod)
  const heard = means === 'pitch' ? lap.readings : means === 'ear' ? lap.ear : lap.numbers
  const between = lap.between.findLast((each) => each.rod === rod)
  const beside = means === 'pitch' ? lap.numbers.get(rod) : undefined
  return {
    rod,
    owed_32: lap.each === null ? (planned?.turns_32 ?? null) : lap.order.includes(rod) ? lap.each : null,
    turned: turnedOf(lap, rod),
    reading: reading(means === 'ear' ? heard.get(rod) : (between ?? heard.get(rod)), rod, figures),
    number: beside ? beside.typed : '',
    predicted: planned?.predicted ?? '',
    predicted_cents: planned?.predicted_cents ?? null,
    predicted_sd_cents: planned?.predicted_sd_cents ?? null,
    reference: means === 'ear' && rod === reference && step.kind === 'clear',
    why: planned?.why ?? '',
  }
}

/** What a round says as a whole holds only for the readings it was worked out from. */
function wholeRound(lap: FoldedLap, at: At): Answer['figures']['rounds'][number] | undefined {
  const found = at.state.answer.figures.rounds.find(
    (each) => each.step === at.step.id && each.lap === at.number,
  )
  const entries = [...new Set([...lap.readings.values()].map((each) => each.event))].sort()
  return found && found.of.join() === entries.join() ? found : found && { ...found, pair: null, tapped: null }
}

function centreOf(lap: FoldedLap, figures: Figures): Lap['centre'] {
  if (!lap.centre) return null
  const { typed, ...mark } = lap.centre
  const known = figures.pitches.find((each) => each.entry === mark.event)
  // A note is for the server to read: until then it stands as it was typed.
  return { ...mark, typed, hz: known?.hz ?? numberTyped(typed), note: known?.note ?? '' }
}

function lapView(lap: FoldedLap, at: At, target: number | null): Lap {
  const { state, step } = at
  const plan = planOf(lap.plan, state.answer.figures)
  const means = plan?.means ?? state.means
  const gone = lostSince(state, step.side)
  const head = headOf(state.answer, step.side)
  const rods = Array.from({ length: head.rods }, (_, n) => n + 1).filter(
    (rod) => !head.lost.includes(rod) && !gone.has(rod),
  )
  const whole = wholeRound(lap, at)
  return {
    each_32: lap.each,
    until: lap.until,
    order: lap.order.filter((rod) => !gone.has(rod)),
    rods: rods.map((rod) => rodOf(rod, lap, means, at, referenceOf(state, step.side))),
    plan,
    asked: lap.asked && !plan,
    left: planOf(lap.left, state.answer.figures),
    taps_between: lap.between.length,
    tap_open: tapOpen(lap),
    wanted_hz: whole?.wanted_hz ?? target,
    compared: plan || lap.afresh ? (whole?.compared ?? '') : '',
    afresh: lap.afresh,
    whole: lap.whole,
    pair: whole?.pair ?? null,
    centre: centreOf(lap, state.answer.figures),
    tapped: plan ? null : (whole?.tapped ?? null),
  }
}

const tapping = (state: Folded, side: Side | null): number[] => {
  const gone = lostSince(state, side)
  return headOf(state.answer, side).tapping_order.filter((rod) => !gone.has(rod))
}

function referenceOf(state: Folded, side: Side | null): number {
  const order = tapping(state, side)
  return state.reference !== null && order.includes(state.reference) ? state.reference : (order[0] ?? 1)
}

const said = (points: { text: string; when?: unknown }[], found: readonly Fact[]): string[] =>
  points.filter((each) => holds(each.when as When, found)).map((each) => each.text)

function stepView(state: Folded, step: Answer['plan'][number]): Step {
  const known = near(step.side, facts(state))
  const { when: _w, passes: _p, zero: _z, points, tools, ...plain } = step
  const target = aimOf(state, headOf(state.answer, step.side).side)
  return {
    ...plain,
    points: said(points, known),
    tools: said(tools, known),
    ...asksOf(state, step),
    done: state.done.get(step.id) ?? null,
    laps: (state.laps.get(step.id) ?? []).map((lap, number) => lapView(lap, { state, step, number }, target)),
    resting_until: state.rests.get(step.id) ?? null,
  }
}

function targetOf(state: Folded, side: Side): { hz: number | null; note: string } {
  const mark = state.targets.get(side)
  const known = state.answer.figures.pitches.find((each) => each.entry === mark?.event)
  if (known) return known
  return { hz: numberTyped(mark?.typed ?? ''), note: '' }
}

/** What the rods are brought to now: above the wanted pitch by what a new head will settle. */
function aimOf(state: Folded, side: Side): number | null {
  const { hz } = targetOf(state, side)
  return hz && hz * 2 ** (headOf(state.answer, side).above_cents / 1200)
}

/** Turns of each rod since finger-tight, or null when this job did not count from there. */
export function tallyOf(state: Folded, side: Side): Map<number, number> | null {
  const zero = state.answer.plan.findIndex((step) => step.zero && step.side === side)
  if (zero < 0 || !state.done.has(state.answer.plan[zero]?.id ?? '')) return null
  const head = headOf(state.answer, side)
  const gone = lostSince(state, side)
  const total = new Map<number, number>()
  for (let rod = 1; rod <= head.rods; rod++) if (!head.lost.includes(rod) && !gone.has(rod)) total.set(rod, 0)
  for (const step of state.answer.plan.slice(zero + 1))
    for (const lap of (step.side === side && state.laps.get(step.id)) || [])
      for (const [rod, made] of lap.turned)
        if (total.has(rod)) total.set(rod, (total.get(rod) ?? 0) + (made.turns_32 ?? 0))
  return total
}

function headView(state: Folded, side: Side): Head {
  const { turning_order: _, ...plain } = headOf(state.answer, side)
  const target = targetOf(state, side)
  const uneven = state.uneven.get(side)
  const tally = tallyOf(state, side)
  return {
    ...plain,
    lost: [...plain.lost, ...lostSince(state, side)],
    tapping_order: tapping(state, side),
    target_hz: target.hz,
    aim_hz: aimOf(state, side),
    target_note: target.note,
    uneven: uneven?.what ?? '',
    uneven_words: state.answer.figures.uneven.find((each) => each.entry === uneven?.event)?.words ?? '',
    reference: state.means === 'ear' ? referenceOf(state, side) : null,
    tally: tally && [...tally].map(([rod, turns_32]) => ({ rod, turns_32 })),
  }
}

/** The folded job for the screen. */
export function view(state: Folded): Bench {
  const { plan: _p, log: _l, figures: _f, anew: _a, ...answer } = state.answer
  const steps = shownSteps(state).map((step) => stepView(state, step))
  const heads = answer.heads.map((each) => headView(state, each.side))
  const now = steps.find((step) => !step.done)
  const inHand = headOf(state.answer, now?.side ?? null)
  const undo = state.live
    .filter(({ body, device }) => body.kind !== 'close' && device !== 'server')
    .map(({ id, words }) => ({ event: id, words }))
    .reverse()
  return {
    ...answer,
    state: state.closed ? 'closed' : answer.state,
    steps,
    heads,
    head: heads.find((each) => each.side === inHand.side) ?? { ...headView(state, inHand.side) },
    step_32: state.step_32,
    means: state.means,
    by: state.by,
    found: [...state.found.values()],
    undo,
    notes: state.notes,
  }
}
