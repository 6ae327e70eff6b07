import type { Lap } from '../../log/types'
import { Note } from '../../parts'

/** What the last round, or the last tap between turns, says of the turns before it: something to look at before turning on. */
export function Noticed({ lap }: { lap: Lap }) {
  return <Found findings={lap.left?.findings.length ? lap.left.findings : (lap.plan?.findings ?? [])} />
}

type Findings = NonNullable<Lap['plan']>['findings']

/** Each with a title of its own. */
export function Found({ findings }: { findings: Findings }) {
  return findings.length ? (
    <Note role="status" aria-label="Look at this first">
      {findings.map((each) => (
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
