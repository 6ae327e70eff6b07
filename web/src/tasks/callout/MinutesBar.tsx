import styled from 'styled-components'
import type { Standing, Step } from './log/fold'
import type { Now } from './log/plan'

interface Props {
  plan: Now
  stands: Standing
  steps: ReadonlyMap<string, Step>
}

/** All the minutes there were: what is done, what is in hand, what comes, and what is left over. */
export function MinutesBar({ plan, stands, steps }: Props) {
  const done = [...stands.done.keys()].flatMap((id) => steps.get(id) ?? [])
  const spare = Math.max(0, plan.minutes - plan.needs)
  return (
    <Bar aria-hidden>
      {done.map((step) => (
        <i key={step.id} data-of="done" style={{ flexGrow: step.minutes }} />
      ))}
      {plan.current ? <i data-of="now" style={{ flexGrow: plan.current.minutes }} /> : null}
      {plan.then.map((step) => (
        <i key={step.id} style={{ flexGrow: step.minutes }} />
      ))}
      {spare > 0 ? <i data-of="spare" style={{ flexGrow: spare }} /> : null}
    </Bar>
  )
}

const Bar = styled.div`
  display: flex;
  gap: 3px;
  height: 12px;
  i {
    flex: 0 1 0;
    min-width: 4px;
    background: var(--rule);
  }
  i[data-of='done'] {
    background: var(--ink);
    opacity: 0.55;
  }
  i[data-of='now'] {
    background: var(--ink);
    height: 16px;
    margin-top: -2px;
  }
  i[data-of='spare'] {
    background: transparent;
    border: 1px solid var(--rule);
  }
`
