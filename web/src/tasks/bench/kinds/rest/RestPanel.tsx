import { clock, span } from '../../../../domain/dates'
import type { Step } from '../../log/types'
import { useNow } from '../../../../ui/useNow'
import { Meanwhile } from './Meanwhile'
import { Big, Label, Panel, Say, Why } from '../../parts'

/** The film settles over the edge; the bench is free for another drum. */
export function RestPanel({ step, job }: { step: Step; job: string }) {
  const now = useNow(15_000)
  const until = step.resting_until ? new Date(step.resting_until) : null
  const left = until ? Math.ceil((until.getTime() - now) / 60_000) : null
  return (
    <Panel aria-live="polite">
      {left === null ? (
        <>
          <Say>{step.say}</Say>
          <Why>This workshop rests {step.minutes} minutes. Today shows the time left, wherever you are.</Why>
        </>
      ) : left > 0 ? (
        <>
          <Label>Resting, ready {until ? clock(until) : ''}</Label>
          <Big>{span(left)}</Big>
          <Why>This one waits at this place on every device, and rings when it is ready.</Why>
          <Meanwhile job={job} />
        </>
      ) : (
        <>
          <Say>It has rested. Tap round once more if it sounds lower.</Say>
          <Why>Undo the steps back to clearing for another round, or go on.</Why>
        </>
      )}
    </Panel>
  )
}
