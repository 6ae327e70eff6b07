import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { amountOf, turnNoun } from '../../../domain/turns'
import { PlanView } from '../../../ui/PlanView'
import { Tally } from '../../../ui/Tally'
import type { Next } from '../state/next'
import type { Bench } from '../state/types'
import { Findings } from './Findings'
import { Amount, Big, Cautions, Label, Panel, Why } from './parts'

type Turning = Extract<Next, { kind: 'turn' }>

function whyOf(next: Turning): string {
  const why = next.lap.rods.find((each) => each.rod === next.rod)?.why
  if (why) return why
  return next.step.say
}

function lapWords(next: Turning): string {
  const of = next.step.laps.length
  return next.lap.each_32 === null
    ? `Round ${next.lapNo + 1}, next rod`
    : `Pass ${next.lapNo + 1} of ${of}, next rod`
}

/** One rod, how far, and why. */
export function TurnPanel({ bench, next, onWhy }: { bench: Bench; next: Turning; onWhy: () => void }) {
  const first = next.lapNo === 0 && next.lap.rods.every((rod) => !rod.turned)
  return (
    <Panel>
      {first ? <Cautions of={next.step.cautions} /> : null}
      <Findings lap={next.lap} />
      <Two>
        <div aria-live="polite" data-testid="instruction">
          <Label>{lapWords(next)}</Label>
          <Big>{next.rod}</Big>
          <Amount>
            {next.owed > 0 ? 'up' : 'down'} {amountOf(next.owed)} {turnNoun(next.owed)}
          </Amount>
        </div>
        <PlanView
          rods={bench.rods}
          lost={bench.lost}
          badge={bench.badge}
          now={next.rod}
          next={next.then}
          middle={bench.badge === 'none' ? '' : 'badge up'}
          size={150}
          label={`Head from above: rod ${next.rod} is in hand${next.then ? `, then ${next.then}` : ''}`}
        />
      </Two>
      <Tally turns={next.owed} owed size={46} words="said" />
      <Why>
        {whyOf(next)} {next.lap.plan ? <Ask onPress={onWhy}>Why this much?</Ask> : null}
      </Why>
    </Panel>
  )
}

const Two = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  gap: 8px;
  position: relative;
  > div {
    min-width: 0;
  }
  > svg {
    position: absolute;
    right: -12px;
    top: -18px;
  }
  @media (max-width: 700px) {
    > svg {
      width: 128px;
      height: 128px;
    }
  }
`
export const Ask = styled(AriaButton)`
  border: 0;
  padding: 2px 0;
  background: none;
  color: var(--soft);
  cursor: pointer;
  border-bottom: 1.5px dotted currentColor;
  font-size: inherit;
`
