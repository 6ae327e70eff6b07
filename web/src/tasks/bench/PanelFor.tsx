import { KINDS } from './kinds'
import { ClosedPanel } from './kinds/close/ClosedPanel'
import type { PanelProps } from './kinds/kind'

/** The instruction that fits what is next: each kind of step has its own. */
export function PanelFor(props: PanelProps) {
  if (props.next.kind === 'closed') return <ClosedPanel bench={props.bench} />
  const { Panel } = KINDS[props.next.step.kind]
  return <Panel {...props} />
}
