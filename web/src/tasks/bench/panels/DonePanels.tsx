import { Link } from 'react-router'
import { amountOf, turnWords, turns32 } from '../../../domain/turns'
import type { Next } from '../state/next'
import type { Bench } from '../state/types'
import { Panel, Points, Say, Why } from './parts'

export function ClearedPanel({ next }: { next: Extract<Next, { kind: 'cleared' }> }) {
  return (
    <Panel aria-live="polite">
      <Say>Pitch-clear.</Say>
      <Why>{next.lap.plan?.verdict}</Why>
      {next.lap.compared ? <Why>{next.lap.compared}</Why> : null}
      <Why>Pitch alone does not hear every unevenness of tension; the tally below is the other witness.</Why>
    </Panel>
  )
}

export function StuckPanel({ bench, next }: { bench: Bench; next: Extract<Next, { kind: 'stuck' }> }) {
  return (
    <Panel aria-live="polite">
      <Say>No turn in steps of {amountOf(turns32(bench.step_32))} would make it more even.</Say>
      <Why>{next.lap.plan?.verdict}</Why>
      {next.lap.plan?.too_coarse ? <Why>{next.lap.plan.too_coarse}</Why> : null}
      <Why>
        It is not clear by the rule. Work finer, tap round again, or leave it so; that is yours to decide.
      </Why>
    </Panel>
  )
}

export function PassesDonePanel({ next }: { next: Extract<Next, { kind: 'passes-done' }> }) {
  const slack = (next.lap.each_32 ?? 0) < 0
  return (
    <Panel aria-live="polite">
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

export function ClosedPanel({ bench }: { bench: Bench }) {
  return (
    <Panel aria-live="polite">
      <Say>Closed. It is in {bench.name}’s history.</Say>
      <Why>
        <Link to={`/drums/${bench.tag}`}>
          <u>See the drum</u>
        </Link>
      </Why>
    </Panel>
  )
}
