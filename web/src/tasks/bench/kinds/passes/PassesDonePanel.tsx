import { turnWords, turns32 } from '../../../../domain/turns'
import type { Of } from '../../cursor'
import { Panel, Points, Say } from '../../parts'

/** Every pass is made: is it enough? */
export function PassesDonePanel({ next }: { next: Of<'passes-done'> }) {
  const all = new Set(next.lap.order).size === next.lap.rods.length
  return (
    <Panel tabIndex={0}>
      <Say>{next.step.enough}</Say>
      <Points>
        {next.step.points.map((point) => (
          <li key={point}>{point}</li>
        ))}
        {next.step.more_pass_32 ? (
          <li>
            If not, one more pass: {turnWords(turns32(next.step.more_pass_32))}{' '}
            {all ? 'at every rod' : `at ${next.lap.order.join(', ')}`}.
          </li>
        ) : null}
      </Points>
    </Panel>
  )
}
