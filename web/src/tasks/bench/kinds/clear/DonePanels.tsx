import { amountOf, turns32 } from '../../../../domain/turns'
import type { Next } from '../../cursor'
import type { Bench } from '../../log/types'
import { PullPicture } from './PullPicture'
import type { Reading } from './reading'
import { Noticed } from './Noticed'
import { TypeIt } from './TypeIt'
import { Big, Label, Panel, Say, Why } from '../../parts'

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
    <Panel>
      <Say>{plan.at_pitch ? `${CLEARED[plan.means]?.slice(0, -1)}, and at pitch.` : CLEARED[plan.means]}</Say>
      <Noticed lap={next.lap} />
      <Why>{plan.verdict}</Why>
      {next.lap.compared ? <Why>{next.lap.compared}</Why> : null}
      <PullPicture pull={plan.pull} badge={bench.badge} count={bench.head.rods} />
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
      <div data-testid="instruction">
        <Label>{reading.rod === null ? 'Every rod has its number' : 'Stand the gauge at rod'}</Label>
        <Big>{reading.rod ?? '✓'}</Big>
      </div>
      {reading.rod === null ? (
        <Why>Now the pull at each rod can be judged.</Why>
      ) : (
        <TypeIt what={`rod ${reading.rod}`} round={next.lapNo} means="gauge" reading={reading} />
      )}
      <Why>The same distance from the hoop at every rod, the gauge still before you read it.</Why>
    </Panel>
  )
}

export function StuckPanel({ bench, next }: { bench: Bench; next: Extract<Next, { kind: 'stuck' }> }) {
  return (
    <Panel>
      <Say>
        {next.lap.plan?.even && next.lap.plan.at_pitch === false
          ? `Even, but not at pitch. No turn in steps of ${amountOf(turns32(bench.step_32))} brings it nearer.`
          : `No turn in steps of ${amountOf(turns32(bench.step_32))} would make it more even.`}
      </Say>
      <Noticed lap={next.lap} />
      <Why>{next.lap.plan?.verdict}</Why>
      {next.lap.plan?.too_coarse ? <Why>{next.lap.plan.too_coarse}</Why> : null}
      <Why>
        It is not clear by the rule. Work finer, tap round again, or leave it so; that is yours to decide.
      </Why>
    </Panel>
  )
}
