import { turnWords, turns32 } from '../../../../domain/turns'
import type { Of } from '../../cursor'
import { Panel, Points, Say } from '../../parts'

/** Every pass is made: is it enough? */
export function PassesDonePanel({ next }: { next: Of<'passes-done'> }) {
  const slack = next.step.down
  return (
    <Panel aria-live="polite" tabIndex={0}>
      <Say>{slack ? 'Do fingers turn every rod now?' : 'Is every ripple gone, and has it a tone?'}</Say>
      <Points>
        {next.step.points.map((point) => (
          <li key={point}>{point}</li>
        ))}
        {next.step.more_pass_32 ? (
          <li>If not, one more pass: {turnWords(turns32(next.step.more_pass_32))} at every rod.</li>
        ) : null}
      </Points>
    </Panel>
  )
}
