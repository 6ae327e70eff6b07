import type { Given } from './given'
import { hearFile, wordsOf, type Heard } from './hear'

const byName = (one: File, other: File) => one.name.localeCompare(other.name, undefined, { numeric: true })
const rodsOf = (count: number) => (count === 1 ? '1 rod' : `${count} rods`)

/** A round in one recording, or in many with a tap or more each, in the order of their names. */
export async function hearFiles(
  chosen: readonly File[],
  now: () => Given,
  say: { words: (words: string) => void; last: (heard: Heard | null, rod: number | null) => void },
): Promise<void> {
  const { job, step, lap, rods, rod, otherMuted } = now()
  let left = rods.slice(rod === null ? 0 : rods.indexOf(rod))
  const said = new Set<string>()
  let [taken, all, read] = [0, 0, 0]
  for (const each of [...chosen].sort(byName)) {
    say.words(`Hearing ${each.name}.`)
    try {
      const {
        taps,
        readings,
        words: ofFile,
      } = await hearFile({ job, step, lap, rod: left[0] ?? null, otherMuted }, left, each)
      for (const one of readings) now().keep(one.rod, one.heard)
      left = left.filter((one) => !readings.some((given) => given.rod === one))
      const end = readings.at(-1)
      say.last(end?.heard ?? taps.at(-1) ?? null, end?.rod ?? null)
      const refused = taps.filter((tap) => tap.status === 'refuse')
      ;[taken, all, read] = [taken + taps.length - refused.length, all + taps.length, read + readings.length]
      if (ofFile) said.add(ofFile)
      if (refused[0]) said.add(`One was not: ${refused[0].reason}.`)
    } catch (error) {
      said.add(chosen.length > 1 ? `${each.name}: ${wordsOf(error)}` : wordsOf(error))
    }
  }
  say.words(
    [
      ...(all
        ? [
            `${all === 1 && taken === 1 ? 'The tap was' : `${taken} of ${all} taps`} taken for ${rodsOf(read)}.`,
          ]
        : []),
      ...said,
    ].join(' '),
  )
}
