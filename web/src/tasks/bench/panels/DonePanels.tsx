import { Link } from 'react-router'
import { amountOf, turnWords, turns32 } from '../../../domain/turns'
import type { Next } from '../state/next'
import type { Bench } from '../state/types'
import { PullPicture } from '../PullPicture'
import type { Reading } from '../useReading'
import { Findings } from './Findings'
import { NumberEntry } from './NumberEntry'
import { Big, Label, Panel, Points, Say, Why } from './parts'

const CLEARED: Record<string, string> = {
  pitch: 'Pitch-clear.',
  ear: 'Level by ear.',
  gauge: 'Even by the gauge.',
  torque: 'Even by the key.',
}

export function ClearedPanel({ bench, next }: { bench: Bench; next: Extract<Next, { kind: 'cleared' }> }) {
  const { plan } = next.lap
  if (!plan) return null
  return (
    <Panel aria-live="polite">
      <Say>{CLEARED[plan.means]}</Say>
      <Findings lap={next.lap} />
      <Why>{plan.verdict}</Why>
      {next.lap.compared ? <Why>{next.lap.compared}</Why> : null}
      <PullPicture pull={plan.pull} badge={bench.badge} count={bench.rods} />
    </Panel>
  )
}

/** Beside the pitch: a gauge at each rod shows the pull that pitch cannot. */
export function GaugePanel({
  next,
  reading,
}: {
  next: Extract<Next, { kind: 'cleared' }>
  reading: Reading
}) {
  return (
    <Panel>
      <div aria-live="polite" data-testid="instruction">
        <Label>{reading.rod === null ? 'Every rod has its number' : 'Stand the gauge at rod'}</Label>
        <Big>{reading.rod ?? '✓'}</Big>
      </div>
      {reading.rod === null ? (
        <Why>Now the pull at each rod can be judged.</Why>
      ) : (
        <NumberEntry
          what={`rod ${reading.rod}`}
          round={next.lapNo}
          means="gauge"
          typed={reading.typed}
          onTyped={reading.setTyped}
          problem={reading.problem}
          onKeep={reading.keep}
          onStep={reading.step}
        />
      )}
      <Why>The same distance from the hoop at every rod, the gauge still before you read it.</Why>
    </Panel>
  )
}

export function StuckPanel({ bench, next }: { bench: Bench; next: Extract<Next, { kind: 'stuck' }> }) {
  return (
    <Panel aria-live="polite">
      <Say>No turn in steps of {amountOf(turns32(bench.step_32))} would make it more even.</Say>
      <Findings lap={next.lap} />
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
