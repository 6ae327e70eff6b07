import type { KnownRow } from './FoundRows'
import type { Look, Mark, WalkDrum } from './log/fold'

/** What stands from earlier visits and was not said again in this look. */
export function knownMarks(drum: WalkDrum, look: Look): KnownRow[] {
  const said = (mark: Pick<Mark, 'finding' | 'side' | 'rod'>) =>
    look.marks.some(
      (each) => each.finding === mark.finding && each.side === mark.side && each.rod === mark.rod,
    )
  return drum.known
    .map((each, n) => ({
      ...each,
      degree: each.degree as Mark['degree'],
      event: `known${each.row ?? `x${n}`}`,
    }))
    .filter((each) => !said(each))
}

/** Rods that are not there: lost on record, or seen to be missing now; one said to be there again is. */
export function missingRods(drum: WalkDrum, look: Look, side: 'batter' | 'resonant'): number[] {
  const lost = side === 'batter' ? drum.lost_batter : drum.lost_resonant
  const back = new Set(
    drum.known
      .filter((each) => each.finding === 'rod-missing' && each.row !== null && look.gone.has(each.row))
      .map((each) => each.rod),
  )
  const seen = look.marks
    .filter((mark) => mark.finding === 'rod-missing' && mark.side === side && mark.rod !== null)
    .map((mark) => mark.rod ?? 0)
  return [...new Set([...lost.filter((rod) => !back.has(rod)), ...seen])]
}
