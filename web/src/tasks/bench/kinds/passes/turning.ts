import { turns32 } from '../../../../domain/turns'
import type { Bench, Cadence, Head, Lap, Rod, Step } from '../../log/types'
import type { Of } from '../../cursor'

/** Asked of it by this lap, and not yet turned or skipped. */
export const isOwed = (rod: Rod): boolean => Boolean(rod.owed_32) && !rod.turned

/** Rods of a lap still to turn, in working order. */
export function owedRods(lap: Lap): number[] {
  return lap.order.filter((rod) => lap.rods.some((each) => each.rod === rod && isOwed(each)))
}

function facing(head: Head, rod: number): number | undefined {
  return head.pairs.find((pair) => pair.includes(rod))?.find((each) => each !== rod)
}

/** Rods confirmed together, as the cadence has it. */
export function groupOf(owed: number[], by: Cadence, head: Head): number[] {
  const [first] = owed
  if (first === undefined || by === 'rod') return owed.slice(0, 1)
  if (by === 'pass') return owed
  const other = facing(head, first)
  return other !== undefined && owed.includes(other) ? [first, other] : [first]
}

/** The next turn of a lap, or null when every one is made. */
export function turning(bench: Bench, step: Step, lap: Lap, lapNo: number, by: Cadence): Of<'turn'> | null {
  const owed = owedRods(lap)
  const head = bench.heads.find((each) => each.side === step.side) ?? bench.head
  const group = groupOf(owed, by, head)
  const [rod] = group
  if (rod === undefined) return null
  const then = owed.find((each) => !group.includes(each)) ?? null
  const amount = lap.rods.find((each) => each.rod === rod)?.owed_32 ?? 0
  return { kind: 'turn', step, lap, lapNo, group, rod, then, owed: turns32(amount), by }
}
