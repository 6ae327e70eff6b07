import type { Degree, Mark, Part, Tick, WalkDrum } from './log/fold'
import { spotWords } from './log/fold'

export const DEGREES = ['', 'slight', 'plain', 'bad'] as const
export const PART_WORDS: Record<Part, string> = {
  batter: 'Batter',
  resonant: 'Resonant',
  wires: 'Wires',
  shell: 'Shell',
  hardware: 'Hardware',
}

const SIDED = new Set(['head', 'rod', 'hoop', 'edge'])

export const isSided = (tick: Tick, part: Part): boolean =>
  SIDED.has(tick.where) || (tick.where === 'any' && (part === 'batter' || part === 'resonant'))

/** On which part of the drum a mark is shown. */
export function partOf(mark: Pick<Mark, 'side' | 'finding'>, tick: Tick | undefined): Part {
  if (mark.side) return mark.side
  const where = tick?.where
  if (where === 'wires' || where === 'strainer') return 'wires'
  return where === 'shell' || where === 'inside' || where === 'any' ? 'shell' : 'hardware'
}

export const degreeWords = (tick: Tick | undefined, degree: number): string =>
  tick?.degrees.length === 3 ? DEGREES[degree as Degree] : ''

/** 'middle', 'rod 3', 'edge by rod 3, beside the bed'. */
export function placeWords(mark: Pick<Mark, 'rod' | 'spot' | 'side'>, drum: WalkDrum): string {
  if (mark.rod) return `rod ${mark.rod}`
  const rods = mark.side === 'resonant' ? drum.rods_resonant : drum.rods_batter
  return spotWords(mark.spot, rods, drum.badge === 'at-rod')
}
