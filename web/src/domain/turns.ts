/** Turns of a rod, counted in thirty-seconds; positive tightens. The core computes them, this shows them. */

export type Turns32 = number & { readonly __unit: 'turns/32' }

export const turns32 = (count: number): Turns32 => count as Turns32

const FRACTION = new Map<number, string>([
  [1, '1/32'],
  [2, '1/16'],
  [3, '3/32'],
  [4, '1/8'],
  [6, '3/16'],
  [8, '1/4'],
  [12, '3/8'],
  [16, '1/2'],
  [20, '5/8'],
  [24, '3/4'],
  [28, '7/8'],
])

function reduced(rest: number): string {
  const known = FRACTION.get(rest)
  if (known) return known
  const [top, bottom] = rest % 2 ? [rest, 32] : [rest / 2, 16]
  return `${top}/${bottom}`
}

/** The size alone: '1 1/2', '3/8', '0'. */
export function amountOf(turns: Turns32): string {
  const size = Math.abs(turns)
  const whole = Math.floor(size / 32)
  const rest = size % 32
  if (!size) return '0'
  return [whole ? String(whole) : '', rest ? reduced(rest) : ''].filter(Boolean).join(' ')
}

/** As it is said at the bench: 'up 3/8', 'down 2', 'level'. */
export function turnWords(turns: Turns32): string {
  if (!turns) return 'level'
  return `${turns > 0 ? 'up' : 'down'} ${amountOf(turns)}`
}

/** 'turn' or 'turns', as the amount wants it. */
export const turnNoun = (turns: Turns32): string => (Math.abs(turns) > 32 ? 'turns' : 'turn')

export type Stroke = 'full' | 'quarter' | 'eighth' | 'sixteenth' | 'thirtysecond'

const SIZES: readonly [Stroke, number][] = [
  ['full', 32],
  ['quarter', 8],
  ['eighth', 4],
  ['sixteenth', 2],
  ['thirtysecond', 1],
]

/** The strokes that stand for an amount, largest first. */
export function strokesOf(turns: Turns32): Stroke[] {
  const strokes: Stroke[] = []
  let left = Math.abs(turns)
  for (const [stroke, size] of SIZES) {
    while (left >= size) {
      strokes.push(stroke)
      left -= size
    }
  }
  return strokes
}
