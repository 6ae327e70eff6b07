import type { Schemas } from '../../api/client'
import { toForm, type DrumForm } from './form'

/** After somebody else changed the drum: what this person left alone is as it stands now; what they wrote stays. */
export function mergedForm(mine: DrumForm, theirs: Schemas['DrumIn']): DrumForm {
  const now = toForm(theirs)
  if (!mine.seen) return { ...mine, seen: theirs }
  const before = toForm(mine.seen)
  const kept = Object.entries(mine).filter(
    ([name, value]) => name !== 'seen' && value !== before[name as keyof DrumForm],
  )
  return { ...now, ...Object.fromEntries(kept) }
}
