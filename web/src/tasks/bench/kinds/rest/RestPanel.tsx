import { clock, span } from '../../../../domain/dates'
import type { Step } from '../../log/types'
import { useNow } from '../../../../ui/useNow'
import { Meanwhile } from './Meanwhile'
import { Because, Big, Label, Panel, Say, Why } from '../../parts'

interface Props {
  step: Step
  job: string
  /** Something cleared before may be cleared once more. */
  again: boolean
  /** It was. */
  cleared: boolean
}

/** The film settles over the edge; the bench is free for another drum. */
export function RestPanel({ step, job, again, cleared }: Props) {
  const now = useNow(15_000)
  const until = step.resting_until ? new Date(step.resting_until) : null
  const left = until ? Math.ceil((until.getTime() - now) / 60_000) : null
  return (
    <Panel>
      {left === null ? (
        <>
          <Say>{step.say}</Say>
          <Because of={step.why} />
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
          <Say>
            {again
              ? 'It has rested. Tap round once more and bring it back.'
              : cleared
                ? 'It has rested, and was cleared once more.'
                : 'It has rested.'}
          </Say>
          {again ? (
            <Why>
              A new head goes down while it rests. The round before is kept, and the new one is held against
              it.
            </Why>
          ) : null}
        </>
      )}
    </Panel>
  )
}
