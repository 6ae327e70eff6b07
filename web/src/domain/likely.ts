/** Typed figures that can hardly be: they are asked about before they are kept, never refused. Ranges are common practice, no source. */

import { numberTyped } from './numbers'

export interface Likely {
  from: number
  to: number
  /** What such figures are: 'Snare drums are 10 to 16 in across.' */
  words: string
  /** A length is typed in inches or millimetres; the range is in inches then, and this says what a bare number means. */
  unit?: 'in' | 'mm'
}

export interface Unlikely {
  words: string
  /** The slip put right, as it would be typed, where it can be guessed. */
  perhaps: string | null
}

const SLIPS = [0.1, 10, 0.01, 100, 0.5, 2]
const MM = 25.4

const tidy = (value: number): string => String(Number(value.toPrecision(4)))

/** A slip of the keys or the wrong unit that would bring it into the range: the unit first, then a comma lost or a key pressed twice. */
function perhaps(value: number, { from, to, unit }: Likely, meant: Likely['unit']): string | null {
  const other = meant === 'mm' ? 'in' : 'mm'
  const inches = (of: number, as: Likely['unit']) => (as === 'mm' ? of / MM : of)
  const fits = (of: number, as: Likely['unit']) => inches(of, as) >= from && inches(of, as) <= to
  if (unit && fits(value, other)) return `${tidy(value)} ${other}`
  const slip = SLIPS.find((each) => fits(value * each, meant))
  if (slip === undefined) return null
  return meant === unit ? tidy(value * slip) : `${tidy(value * slip)} ${meant}`
}

/** Whether what was typed can hardly be; what is no number is for others to judge. */
export function unlikely(typed: string, likely: Likely): Unlikely | null {
  const value = numberTyped(typed)
  if (value === null) return null
  const meant =
    likely.unit && (/mm\s*$/i.test(typed) ? 'mm' : /(in|"|″)\s*$/i.test(typed) ? 'in' : likely.unit)
  const inches = meant === 'mm' ? value / MM : value
  if (inches >= likely.from && inches <= likely.to) return null
  return { words: `${typed.trim()}? ${likely.words}`, perhaps: perhaps(value, likely, meant) }
}

const DIAMETERS: Readonly<Record<string, readonly [number, number]>> = {
  snare: [10, 16],
  'rack-tom': [6, 16],
  'floor-tom': [12, 20],
  bass: [16, 32],
  'marching-bass': [14, 36],
  'marching-snare': [12, 15],
  'orchestral-snare': [12, 16],
  'concert-tom': [6, 18],
  'practice-mesh': [6, 26],
  'rope-bass': [20, 48],
}
const DEPTHS: Readonly<Record<string, readonly [number, number]>> = {
  snare: [3, 10],
  'marching-snare': [7, 14],
  'orchestral-snare': [3, 10],
}

/** 12 in is 305 mm. */
const lengths = (from: number, to: number, unit: 'in' | 'mm'): string =>
  unit === 'in' ? `${from} to ${to} in` : `${Math.round(from * MM)} to ${Math.round(to * MM)} mm`

/** `said` is the kind in words, 'rack tom'. */
export function likelyDiameter(kind: string, said: string, unit: 'in' | 'mm'): Likely {
  const [from, to] = DIAMETERS[kind] ?? [6, 48]
  return { from, to, unit, words: `A ${said} is usually ${lengths(from, to, unit)} across.` }
}
export function likelyDepth(kind: string, said: string, unit: 'in' | 'mm'): Likely {
  const [from, to] = DEPTHS[kind] ?? [3, 24]
  return { from, to, unit, words: `A ${said} is usually ${lengths(from, to, unit)} deep.` }
}
export const likelyPort = (unit: 'in' | 'mm'): Likely => ({
  from: 2,
  to: 12,
  unit,
  words: `A port is usually ${lengths(2, 12, unit)} wide.`,
})

const PITCHES: Readonly<Record<string, readonly [number, number]>> = {
  snare: [120, 500],
  'marching-snare': [200, 900],
  'orchestral-snare': [120, 500],
  'rack-tom': [70, 400],
  'concert-tom': [70, 500],
  'floor-tom': [45, 220],
  bass: [25, 150],
  'marching-bass': [35, 250],
  'rope-bass': [20, 120],
}
export function likelyPitch(kind: string, said: string): Likely {
  const [from, to] = PITCHES[kind] ?? [20, 900]
  return { from, to, words: `At the rods of a ${said} it is usually ${from} to ${to} Hz.` }
}

/** Another wanted pitch beside the one it has: an octave off is a slip. */
export const likelyBeside = (wanted: number): Likely => ({
  from: wanted / 1.8,
  to: wanted * 1.8,
  words: `This head is near ${Math.round(wanted)} Hz now.`,
})

/** Counts of a line beside what the book says of it. */
export const likelyCount = (book: number): Likely => ({
  from: book < 10 ? 0 : Math.ceil(book / 4),
  to: Math.max(20, book * 4),
  words: `The book says ${book}.`,
})

export const between = (from: number, to: number, words: string): Likely => ({ from, to, words })
