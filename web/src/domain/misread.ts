/** Readings that cannot be; the same rule as the core's `rods/clearing/misread.py`, so that it is asked at once, without network too. */

export interface Misread {
  rod: number
  value: number
  /** What it was held against. */
  near: number
  by: 'others' | 'wanted' | 'before'
  /** The slip put right, where it can be guessed. */
  perhaps: number | null
}

interface Beside {
  wanted: number | null
  foretold: ReadonlyMap<number, number>
  /** Pitch goes with the root of the pull that a gauge or key reads. */
  power: 1 | 2
  sure: ReadonlySet<number>
}

const APART = 1.4
const ABOVE_WANTED = 2
const BELOW_WANTED = 0.25
const FEWEST = 2
const SLIPS = [1, 10, 0.1, 2, 0.5, 100, 0.01]
const NEAR = 1.25

const away = (one: number, other: number): number => Math.abs(Math.log(one / other))
const within = (value: number, near: number, ratio: number): boolean =>
  value / near >= 1 / ratio && value / near <= ratio
const nearest = (of: readonly number[], to: number): number =>
  of.reduce((best, each) => (away(each, to) < away(best, to) ? each : best))

function perhaps(value: number, near: number): number | null {
  const best = nearest(
    SLIPS.map((each) => value * each),
    near,
  )
  return within(best, near, NEAR) ? Number(best.toPrecision(4)) : null
}

function heldAgainst(
  value: number,
  others: number[],
  before: number | undefined,
  { wanted, power }: Beside,
): [number, Misread['by']] | null {
  if (others.length >= FEWEST) {
    const sorted = [...others].sort((a, b) => a - b)
    const middles = [sorted[Math.floor((sorted.length - 1) / 2)], sorted[Math.floor(sorted.length / 2)]]
    const middle = nearest(
      middles.filter((each) => each !== undefined),
      value,
    )
    if (!within(value, middle, APART ** power)) return [middle, 'others']
  } else if (before !== undefined) return [before, 'before']
  const [low, high] = [BELOW_WANTED ** power, ABOVE_WANTED ** power]
  if (wanted !== null && !(value / wanted >= low && value / wanted <= high)) return [wanted, 'wanted']
  return null
}

/** Those of a round's readings to be asked about, in the order of the rods. */
export function misread(values: ReadonlyMap<number, number>, beside: Beside): Misread[] {
  const found = new Map<number, Misread>()
  for (const [rod, value] of values) {
    const others = [...values].filter(([other, each]) => other !== rod && each > 0).map(([, each]) => each)
    const before = beside.foretold.get(rod)
    if (beside.sure.has(rod) || value <= 0) continue
    if (before !== undefined && within(value, before, APART ** beside.power)) continue
    const held = heldAgainst(value, others, before, beside)
    if (held) found.set(rod, { rod, value, near: held[0], by: held[1], perhaps: perhaps(value, held[0]) })
  }
  const { wanted, power } = beside
  let asked = [...found.values()]
  if (wanted !== null && found.size === values.size && values.size > 1) {
    // Two camps: the one that can be where the head is wanted stands.
    const kept = asked.filter((each) => !within(each.value, wanted, APART ** power))
    asked = kept.length ? kept : asked
  }
  return asked.sort((a, b) => a.rod - b.rod)
}

const figure = (value: number): string => String(Number(value.toFixed(2)))
const ABOUT: Record<Misread['by'], string> = {
  others: 'Its neighbours are near',
  wanted: 'This head is wanted near',
  before: 'It should be near',
}

/** '912? Its neighbours are near 91.' */
export const misreadWords = ({ value, near, by }: Misread): string =>
  `${figure(value)}? ${ABOUT[by]} ${figure(Math.round(near))}.`
