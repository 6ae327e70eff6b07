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
    predicted_hz: null,
    predicted_sd_hz: null,
    predicted_cents: null,
    why: '',
  }))
  return { ...lap, each_32: each, rods, plan: null, compared: '' }
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
      for (const rod of lap.rods) {
        if (rod.turned?.event === event) rod.turned = null
        if (rod.reading?.event === event) rod.reading = null
      }
    }
  }
  bench.undo = bench.undo.filter((each) => each.event !== event)
}

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
      if (rod) rod.reading = { ...mark, hz: Number.NaN, typed: body.typed, note: '', cents: null }
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
