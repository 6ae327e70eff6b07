import type { Step } from '../../log/types'
import { Because, Cautions, Panel, Points, Say, Told, Why } from '../../parts'

/** Something to do and look at, done when it is done. */
export function TickPanel({ step }: { step: Step }) {
  return (
    <Panel tabIndex={0}>
      <Cautions of={step.cautions} />
      <Say>{step.say}</Say>
      <Because key={step.id} of={step.why} />
      {step.told ? <Told role="status">{step.told}</Told> : null}
      <Points>
        {step.recalls.map((each) => (
          <li key={each.name}>
            {each.words}: <b>{each.said}</b>
          </li>
        ))}
        {step.points.map((point) => (
          <li key={point}>{point}</li>
        ))}
      </Points>
      {step.tools.length && !step.lays_out ? <Why>To hand: {step.tools.join(', ')}.</Why> : null}
    </Panel>
  )
}
