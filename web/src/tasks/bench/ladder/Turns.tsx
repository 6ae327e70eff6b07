import { turns32 } from '../../../domain/turns'
import { Tally } from '../../../ui/Tally'
import type { Rod } from '../log/types'

/** Strokes owed (red) or done (ink) at one rod. */
export function Turns({ rod }: { rod: Rod | null }) {
  if (!rod) return null
  if (rod.turned) {
    return rod.turned.turns_32 === null ? (
      <small>skipped</small>
    ) : (
      <Tally turns={turns32(rod.turned.turns_32)} after=" ✓" />
    )
  }
  if (rod.owed_32 === null || rod.owed_32 === undefined) return null
  return rod.owed_32 ? <Tally turns={turns32(rod.owed_32)} owed /> : <small>level</small>
}
