import type { Body } from '../../../api/outbox'
import {
  beginWhatIsLeft,
  freshLap,
  headOf,
  lostSince,
  owedIn,
  partLeft,
  planLeft,
  turnRod,
  type Counted,
  type Folded,
  type FoldedLap,
  type Planned,
} from './state'
import type { Mark, Side } from './types'

type Kind = Body['kind']
type Of<K extends Kind> = Extract<Body, { kind: K }>
type Apply = { [K in Kind]: (state: Folded, body: Of<K>, mark: Mark) => void }

const lapOf = (state: Folded, step: string, lap: number): FoldedLap | undefined => state.laps.get(step)?.[lap]
const sideOf = (state: Folded, side: Side | null | undefined): Side => side ?? headOf(state.answer, null).side

function read(state: Folded, body: Of<'reading'>, mark: Mark): void {
  const lap = lapOf(state, body.step, body.lap)
  if (!lap) return
  const means = body.means ?? 'pitch'
  const rods = means === 'pitch' ? lap.readings : means === 'ear' ? lap.ear : lap.numbers
  rods.set(body.rod, { ...mark, typed: body.typed, tap: body.tap ?? '', sure: body.sure ?? false })
}

/** Turn and tap: what is left is known once the server has told it; until then the round goes on as it was planned. */
function tap(
  state: Folded,
  { step, lap: number, rod, typed, tap: heard, sure, turns_32 }: Of<'tapped'>,
  mark: Mark,
) {
  const lap = lapOf(state, step, number)
  if (!lap) return
  if (turns_32 !== null && turns_32 !== undefined) turnRod(lap, rod, turns_32, mark)
  lap.between.push({ ...mark, rod, typed, tap: heard ?? '', sure: sure ?? false })
  const worked = plannedBy(state, mark)
  const { planned_taps, last_taps } = state.answer.figures
  // Of earlier plans only that they were made is told: what was turned by then is counted apart, and whether the round was over.
  if (worked) planLeft(lap, worked)
  else if (last_taps.includes(mark.event)) planLeft(lap, { ...mark, turns: new Map() })
  else if (planned_taps.includes(mark.event)) partLeft(lap)
}

function plannedBy(state: Folded, mark: Mark): Planned | null {
  const worked = state.answer.figures.plans.find((each) => each.entry === mark.event)
  return worked ? { ...mark, turns: new Map(worked.rods.map((each) => [each.rod, each.turns_32])) } : null
}

function reorder(state: Folded, body: Of<'order'>, mark: Mark): void {
  const lap = lapOf(state, body.step, body.lap)
  if (!lap) return
  const before = new Map(lap.readings)
  lap.readings.clear()
  for (const { rod, real } of body.moves) {
    const was = before.get(rod)
    if (was) lap.readings.set(real, { ...mark, typed: was.typed, tap: was.tap, sure: false })
  }
}

/** What each kind of entry does. Nothing is ever reversed: undone entries are left out before this. */
const APPLY: Apply = {
  step_done: (state, { step }, mark) => {
    if (!state.done.has(step)) state.done.set(step, mark)
  },
  turned: (state, { step, lap: number, made }, mark) => {
    const lap = lapOf(state, step, number)
    if (lap) for (const { rod, turns_32 } of made) turnRod(lap, rod, turns_32, mark)
  },
  pass_added: (state, { step, each_32 }) => {
    const asked = state.answer.plan.find((each) => each.id === step)
    const like = asked?.passes.at(-1)
    const order = like?.order ?? headOf(state.answer, asked?.side ?? null).turning_order
    state.laps.get(step)?.push(freshLap(order, each_32, like?.until))
  },
  cadence: (state, { by, down }) => {
    state.by = down ? { ...state.by, down: by } : { ...state.by, up: by }
  },
  reading: read,
  tapped: tap,
  order: reorder,
  centre: (state, { step, lap: number, typed }, mark) => {
    const lap = lapOf(state, step, number)
    if (lap) lap.centre = { ...mark, typed }
  },
  means: (state, { means, reference }) => {
    state.means = means
    state.reference = reference ?? null
  },
  whole: (state, { step, lap: number, judged }) => {
    const lap = lapOf(state, step, number)
    if (lap) lap.whole = judged
  },
  uneven: (state, { what, side }, mark) => {
    state.uneven.set(sideOf(state, side), { event: mark.event, what: what ?? '' })
  },
  target: (state, { typed, side }, mark) => {
    state.targets.set(sideOf(state, side), { event: mark.event, typed: typed ?? '' })
  },
  plan: (state, { step, lap: number }, mark) => {
    const lap = lapOf(state, step, number)
    const worked = plannedBy(state, mark)
    if (!lap) return
    if (worked) lap.plan = worked
    lap.asked = !state.answer.log.some((each) => each.id === mark.event)
  },
  once_more: (state, { step }) => {
    const laps = state.laps.get(step)
    if (!laps || !state.done.delete(step)) return
    const side = state.answer.plan.find((each) => each.id === step)?.side ?? null
    const last = laps.at(-1)
    if (last && !last.plan && !last.readings.size && !last.ear.size && !last.numbers.size) laps.pop()
    const fresh = freshLap(headOf(state.answer, side).turning_order, null)
    laps.push({ ...fresh, afresh: laps.length > 0 })
  },
  step_size: (state, { step_32 }) => {
    state.step_32 = step_32
  },
  rest: (state, { step, minutes }, { at }) => {
    state.rests.set(step, new Date(new Date(at).getTime() + minutes * 60_000).toISOString())
  },
  found: (state, body, mark) => {
    state.found.set(mark.event, {
      ...mark,
      finding: body.finding,
      degree: body.degree ?? 2,
      side: body.side ?? '',
      rod: body.rod ?? null,
      note: body.note ?? '',
      step: body.step,
      put_right: false,
    })
  },
  put_right: (state, { event }) => {
    const found = state.found.get(event)
    if (found) state.found.set(event, { ...found, put_right: true })
  },
  answer: (state, { question, values }, mark) => {
    state.answers.set(question, { ...mark, values: values ?? [] })
  },
  school: (state, _, { event }) => {
    const anew = state.answer.anew?.find((each) => each.entry === event)
    if (!anew) return // the server has not told yet what comes of it
    const { heads, ...answer } = state.answer
    const orders = (side: Side) => anew.heads.find((each) => each.side === side)
    state.answer = {
      ...answer,
      pattern: anew.pattern,
      plan: anew.plan,
      heads: heads.map((each) => ({ ...each, ...orders(each.side) })),
    }
    beginWhatIsLeft(state)
  },
  lent: (state, { what, from_tag, from_rod }) => {
    state.notes.push(`${what} lent from ${from_tag}${from_rod ? `, rod ${from_rod}` : ''}`)
  },
  note: (state, { text }) => {
    state.notes.push(text)
  },
  close: (state) => {
    state.closed = true
  },
  undo: () => undefined,
  settle: () => undefined,
}

/** When every turn of a planned round is made, the next round of reading is open; offline it opens here. */
function openNextRounds(state: Folded): void {
  for (const step of state.answer.plan) {
    const laps = step.kind === 'clear' ? state.laps.get(step.id) : undefined
    const last = laps?.at(-1)
    if (!laps || !last?.plan || ![...last.plan.turns.values()].some(Boolean)) continue
    if (!owedIn(last, lostSince(state, step.side)).length)
      laps.push(freshLap(headOf(state.answer, step.side).turning_order, null))
  }
}

/** One more entry that counts. */
export function apply(state: Folded, entry: Counted): void {
  const { body } = entry
  // Of a kind this page does not know, a newer server’s: it is kept and shown, and changes nothing here.
  const one = APPLY[body.kind] as ((state: Folded, body: Body, mark: Mark) => void) | undefined
  one?.(state, body, { event: entry.id, by: entry.by, at: entry.at })
  state.live.push(entry)
  openNextRounds(state)
}
