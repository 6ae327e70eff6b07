import { misread, type Misread } from '../../../../domain/misread'
import { numberTyped } from '../../../../domain/numbers'
import type { Next, Of } from '../../cursor'
import type { Bench, Lap, Means, Reading } from '../../log/types'

/** A typed number, doubted or not; a note is read by the server. */
const numberOf = (typed: string): number | null => numberTyped(typed.replace(/\?\s*$/, ''))
const valueOf = (reading: Reading): number | null => reading.hz ?? numberOf(reading.typed)

/** What the turns of the round before should have brought each rod to. */
function foretold(before: Lap | undefined, means: Means): Map<number, number> {
  const plan = before?.left ?? before?.plan
  if (!before || plan?.means !== means || means === 'ear') return new Map()
  const octave = means === 'pitch' ? 1200 : 600
  return new Map(
    before.rods.flatMap(({ rod, predicted_cents: cents }) =>
      cents === null ? [] : [[rod, plan.wanted * 2 ** (cents / octave)] as const],
    ),
  )
}

type Reads = Extract<Next, { lap: Lap }>

function ask(bench: Bench, { lap, lapNo, step }: Reads, more?: readonly [number, number]): Misread[] {
  if (bench.means === 'ear') return []
  const read = lap.rods.flatMap(({ rod, reading }) => {
    const value = reading && valueOf(reading)
    return value ? [[rod, value] as const] : []
  })
  const sure = lap.rods.flatMap(({ rod, reading }) => (reading?.sure && rod !== more?.[0] ? [rod] : []))
  return misread(new Map(more ? [...read, more] : read), {
    wanted: bench.means === 'pitch' ? bench.head.aim_hz : null,
    foretold: foretold(step.laps[lapNo - 1], bench.means),
    power: bench.means === 'pitch' ? 1 : 2,
    sure: new Set(sure),
  })
}

/** Readings of the round in hand that cannot be and that nobody said are so. */
export const doubtsOf = (bench: Bench, next: Of<'read'>): Misread[] => ask(bench, next)

/** Whether what is being typed for a rod cannot be. */
export function doubtAbout(bench: Bench, next: Next, rod: number, typed: string): Misread | undefined {
  const value = numberOf(typed)
  if (value === null || !('lap' in next) || next.kind === 'cleared') return undefined
  return ask(bench, next, [rod, value]).find((each) => each.rod === rod)
}

/** What was typed or heard for the rod asked about. */
export const typedOf = (next: Next, { rod, value }: Misread): string =>
  (next.kind === 'read' && next.lap.rods.find((each) => each.rod === rod)?.reading?.typed) || String(value)
