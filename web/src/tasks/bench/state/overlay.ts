import type { Entry } from '../../../api/outbox'
import type { Bench, Lap, Rod, Step } from './types'

/** The job as the server told it, with this device's entries that the server has not confirmed yet laid over it. */
export function overlay(bench: Bench, entries: readonly Entry[]): Bench {
  const mine = entries.filter(
    (entry) =>
      entry.job === bench.id && entry.state !== 'refused' && !(entry.seq && entry.seq <= bench.last_seq),
  )
  if (!mine.length) return bench
  const next = structuredClone(bench)
  for (const entry of mine) lay(next, entry)
  return next
}

const stepOf = (bench: Bench, id: string): Step | undefined => bench.steps.find((step) => step.id === id)
const rodOf = (lap: Lap | undefined, rod: number): Rod | undefined =>
  lap?.rods.find((each) => each.rod === rod)

/** Asked of it by this lap, and not yet turned or skipped. */
export const isOwed = (rod: Rod): boolean => Boolean(rod.owed_32) && !rod.turned

function bare(lap: Lap, each: number | null): Lap {
  const rods = lap.rods.map((rod) => ({
    ...rod,
    owed_32: each,
    turned: null,
    reading: null,
    number: '',
    predicted: '',
    predicted_cents: null,
    predicted_sd_cents: null,
    why: '',
  }))
  return {
    ...lap,
    each_32: each,
    rods,
    plan: null,
    compared: '',
    whole: '',
    pair: null,
    centre: null,
    tapped: null,
  }
}

/** When every turn of the last round is made, the next round of tapping is open; offline it opens here. */
function openNextRound(bench: Bench): void {
  const laps = stepOf(bench, 'clear')?.laps
  const last = laps?.at(-1)
  if (laps && last?.plan && last.rods.some((rod) => rod.owed_32) && !last.rods.some(isOwed))
    laps.push(bare(last, null))
}

function takeBack(bench: Bench, event: string): void {
  for (const step of bench.steps) {
    if (step.done?.event === event) step.done = null
    for (const lap of step.laps) {
      if (lap.plan?.event === event) lap.plan = null
      if (lap.centre?.event === event) lap.centre = null
      for (const rod of lap.rods) {
        if (rod.turned?.event === event) rod.turned = null
        if (rod.reading?.event === event) rod.reading = null
      }
    }
  }
  bench.undo = bench.undo.filter((each) => each.event !== event)
}

type Read = NonNullable<Rod['reading']>

/** A reading this device has entered and the server has not read yet. */
const unconfirmed = (mark: Pick<Read, 'event' | 'by' | 'at'>, typed: string): Read => ({
  ...mark,
  shown: typed
    .replace('?', '')
    .replace(/^(\d+\.\d)\d+$/, (all) => Number(all).toFixed(1))
    .replace('-', ' ')
    .replace('cant tell', 'can’t tell'),
  hz: null,
  typed,
  note: '',
  cents: null,
  doubtful: typed.endsWith('?'),
  tap: '',
})

function lay(bench: Bench, entry: Entry): void {
  const { body, id, made_at: at } = entry.event
  const mark = { event: id, by: '', at }
  switch (body.kind) {
    case 'step_done': {
      const step = stepOf(bench, body.step)
      if (step) step.done ??= mark
      break
    }
    case 'turned':
    case 'skipped': {
      const rod = rodOf(stepOf(bench, body.step)?.laps[body.lap], body.rod)
      if (rod) rod.turned = { ...mark, turns_32: body.kind === 'turned' ? body.turns_32 : null }
      openNextRound(bench)
      break
    }
    case 'pass_added': {
      const laps = stepOf(bench, body.step)?.laps
      const last = laps?.at(-1)
      if (laps && last) laps.push(bare(last, body.each_32))
      break
    }
    case 'reading': {
      const rod = rodOf(stepOf(bench, 'clear')?.laps[body.lap], body.rod)
      if (!rod) break
      if (bench.means === 'pitch' && body.means === 'gauge') rod.number = body.typed
      else rod.reading = unconfirmed(mark, body.typed)
      break
    }
    case 'means':
      bench.means = body.means
      bench.reference = body.means === 'ear' ? (body.reference ?? bench.tapping_order[0] ?? 1) : null
      for (const lap of stepOf(bench, 'clear')?.laps.slice(-1) ?? [])
        for (const rod of lap.rods) {
          rod.reading = null
          rod.reference = rod.rod === bench.reference
        }
      break
    case 'order': {
      const lap = stepOf(bench, 'clear')?.laps[body.lap]
      if (!lap) break
      const before = new Map(lap.rods.map((rod) => [rod.rod, rod.reading]))
      const after = new Map(body.moves.map(({ rod, real }) => [real, before.get(rod) ?? null]))
      for (const rod of lap.rods) rod.reading = after.get(rod.rod) ?? null
      lap.tapped = lap.pair = null
      break
    }
    case 'centre': {
      const lap = stepOf(bench, 'clear')?.laps[body.lap]
      if (lap) lap.centre = { ...mark, hz: Number.parseFloat(body.typed) || 0, note: '' }
      break
    }
    case 'whole': {
      const lap = stepOf(bench, 'clear')?.laps[body.lap]
      if (lap) lap.whole = body.judged
      break
    }
    case 'rest':
      bench.resting_until = new Date(new Date(at).getTime() + body.minutes * 60_000).toISOString()
      break
    case 'undo':
      takeBack(bench, body.event)
      return
    case 'close':
      bench.state = 'closed'
      return
    default:
      return
  }
  bench.undo = [{ event: id, words: 'the last entry' }, ...bench.undo]
}
