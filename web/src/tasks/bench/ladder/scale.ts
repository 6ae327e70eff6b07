import type { Lap, Rod } from '../log/types'

/** Half a rung is 50; a beam's end may stand this far from its line. */
const REACH = 36
/** What fills the reach is one of these, and has a ruler: eleven cents never look like eighty-five. */
const REACHES = [20, 50, 100, 200, 400]
/** Beyond so many times what all others read, one reading does not set the scale; it is drawn at the edge and marked. */
const ALONE = 2.5
const TICKS: Record<number, number> = { 20: 10, 50: 25, 100: 50, 200: 100, 400: 200 }
/** How far a turned rod stands off the line in a plain pass. */
const TURNED = 17

/** Where the ends of a beam stand: above (negative) or below the line, in hundredths of a rung. */
export interface End {
  rod: Rod | null
  now: number | null
  predicted: number | null
  sd: number
  /** It lies beyond the edge, this way. */
  beyond?: 'above' | 'below'
  /** A rod of a plain pass that is still to be turned. */
  waiting?: boolean
}

/** Within so much of the pair's distance a reading is of one of the two, else a blend of both. */
const OF_ONE = 0.2

/** Which of the head's pair a reading is; empty where no pair is known or it was not heard. */
export function ofPair(hz: number | null | undefined, pair: Lap['pair']): '' | 'lower' | 'upper' | 'blend' {
  if (!pair || hz === null || hz === undefined) return ''
  const share = (hz - pair.lower_hz) / (pair.upper_hz - pair.lower_hz)
  if (share < OF_ONE) return 'lower'
  return share > 1 - OF_ONE ? 'upper' : 'blend'
}

const EDGE = 44
const clamp = (y: number): number => Math.max(-EDGE, Math.min(EDGE, y))

/** Cents that fill the reach, the same for all pairs of a round. */
export function reachCents(lap: Lap): number {
  const read = lap.rods.map((rod) => Math.abs(rod.reading?.cents ?? 0)).sort((a, b) => b - a)
  const [first = 0, second = 0] = read
  const largest = first > ALONE * second && first > 100 ? second : first
  const foretold = Math.max(0, ...lap.rods.map((rod) => Math.abs(rod.predicted_cents ?? 0)))
  const most = Math.max(largest, Math.min(foretold, 2 * largest))
  return REACHES.find((each) => each >= most) ?? 400
}

/** Whether a lap shows cents: a plain pass does not, nor a round in which nothing was read in cents. */
export const ruled = (lap: Lap): boolean =>
  lap.each_32 === null && lap.rods.some((rod) => (rod.reading?.cents ?? null) !== null)

/** The ruler of a round: cents from one tick to the next, and where the ticks stand in hundredths of a rung. */
export function rulerOf(lap: Lap): { cents: number; at: number[] } {
  const reach = reachCents(lap)
  const cents = TICKS[reach] ?? reach
  const one = (REACH * cents) / reach
  return { cents, at: [-2 * one, -one, one, 2 * one].filter((y) => Math.abs(y) <= REACH + 0.5) }
}

export function endOf(lap: Lap, number: number): End {
  const rod = lap.rods.find((each) => each.rod === number) ?? null
  if (!rod) return { rod: null, now: null, predicted: null, sd: 0 }
  if (lap.each_32 !== null) {
    const turned = rod.turned ? -Math.sign(rod.turned.turns_32 ?? 0) * TURNED : 0
    return { rod, now: turned, predicted: null, sd: 0, waiting: !rod.turned }
  }
  const perCent = REACH / reachCents(lap)
  const cents = rod.reading?.cents
  const off = (cents ?? 0) * perCent
  return {
    rod,
    ...(Math.abs(off) > EDGE ? { beyond: off > 0 ? ('above' as const) : ('below' as const) } : {}),
    now: cents === null || cents === undefined ? null : clamp(-cents * perCent),
    predicted: rod.predicted_cents === null || lap.plan?.clear ? null : clamp(-rod.predicted_cents * perCent),
    sd: Math.min(30, (rod.predicted_sd_cents ?? 0) * perCent),
  }
}
