import type { Lap } from '../../log/types'
import { Note } from '../../parts'

/** What the last round says of the turns before it: something to look at before turning on. */
export function Noticed({ lap }: { lap: Lap }) {
  const found = lap.plan?.findings ?? []
  return found.length ? (
    <Note role="status" aria-label="Look at this first">
      {found.map((each) => (
        <p key={each.words}>
          <b>{TITLES[each.kind] ?? 'Look at this'}.</b> {each.words}
        </p>
      ))}
    </Note>
  ) : null
}

const TITLES: Record<string, string> = {
  'not-answering': 'A rod does not answer',
  'wrong-way': 'Turned the other way',
  'wrong-rod': 'Another rod turned',
  'wrong-order': 'Tapped in another order',
  'readings-swapped': 'Readings swapped',
  'fighting-pair': 'A pair that fights',
  unexplained: 'The readings do not follow',
}
