import type { Lap, Rod } from '../log/types'

/** Half a rung is 50; a beam's end may stand this far from its line. */
const REACH = 36
const LEAST_CENTS = 18
/** How far a turned rod stands off the line in a plain pass. */
const TURNED = 17

/** Where the ends of a beam stand: above (negative) or below the line, in hundredths of a rung. */
export interface End {
  rod: Rod | null
  now: number | null
  predicted: number | null
  sd: number
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

const clamp = (y: number): number => Math.max(-44, Math.min(44, y))

/** Cents that fill the reach: the furthest reading of the round. */
export function reachCents(lap: Lap): number {
  const all = lap.rods.flatMap((rod) => [rod.reading?.cents ?? 0, rod.predicted_cents ?? 0])
  return Math.max(LEAST_CENTS, ...all.map(Math.abs))
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
  return {
    rod,
    now: cents === null || cents === undefined ? null : clamp(-cents * perCent),
    predicted: rod.predicted_cents === null || lap.plan?.clear ? null : clamp(-rod.predicted_cents * perCent),
    sd: Math.min(30, (rod.predicted_sd_cents ?? 0) * perCent),
  }
}
