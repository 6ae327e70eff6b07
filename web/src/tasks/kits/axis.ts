import type { Kit, KitDrum, Plan, Placed } from './useKit'

const SEMITONE = Math.log2(2 ** (1 / 12))
const NAMES = ['A', 'A♯', 'B', 'C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯'] as const
const MARKED = ['A', 'E']

export interface Axis {
  /** Share of the height from the top, 0 to 1; what lies beyond is held at the edge. */
  at: (hz: number) => number
  lines: { name: string; hz: number }[]
}

/** Every pitch a kit shows: where its heads and notes are, and where they go. */
function shown(kit: Kit, plan: Plan | undefined): number[] {
  const now = kit.drums.flatMap((each) => [each.note_hz, ...each.heads.map((head) => head.now_hz)])
  const wanted = plan?.places.flatMap((each) => [each.note_hz, ...each.heads.map((head) => head.hz)]) ?? []
  return [...now, ...wanted].filter((each): each is number => typeof each === 'number')
}

/** One pitch axis for the whole kit, equal steps of pitch being equal heights; A and E are marked, by the workshop's reference. */
export function axisOf(kit: Kit, plan: Plan | undefined): Axis {
  const pitches = shown(kit, plan)
  const low = Math.log2(Math.min(...(pitches.length ? pitches : [80]))) - 3 * SEMITONE
  const high = Math.log2(Math.max(...(pitches.length ? pitches : [320]))) + 3 * SEMITONE
  const at = (hz: number) => Math.min(1, Math.max(0, (high - Math.log2(hz)) / (high - low)))
  const lines = []
  for (let step = -60; step <= 24; step++) {
    const hz = kit.a4_hz * 2 ** (step / 12)
    const name = NAMES[((step % 12) + 12) % 12] ?? ''
    const place = Math.log2(hz)
    if (MARKED.includes(name) && place > low && place < high)
      lines.push({ name: `${name}${4 + Math.floor((step + 9) / 12)}`, hz })
  }
  return { at, lines }
}

export const placeOf = (plan: Plan | undefined, drum: KitDrum): Placed | undefined =>
  plan?.places.find((each) => each.tag === drum.tag)

/** What a drum's heads turn, told once where both do the same. */
export function turnsOf(placed: Placed | undefined): string[] {
  if (!placed) return []
  const heads = placed.heads
  const [first] = heads
  if (!first) return []
  if (heads.every((each) => each.words === first.words)) return [first.words]
  return heads.filter((each) => each.job).map((each) => `${each.side} ${each.words}`)
}
