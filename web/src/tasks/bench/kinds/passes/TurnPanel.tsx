import type { ReactNode } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { amountOf, turnNoun } from '../../../../domain/turns'
import { Bearing, bearingWords } from '../../../../ui/Bearing'
import { Tally } from '../../../../ui/Tally'
import type { Bench } from '../../log/types'
import type { Of } from '../../cursor'
import { Amid, Amount, Because, Big, Cautions, Label, Panel, Points, Why } from '../../parts'
import { Noticed } from '../clear/Noticed'
import { Differently } from './Differently'
import type { Exceptions } from './useExceptions'

interface Props {
  bench: Bench
  next: Of<'turn'>
  exceptions: Exceptions
  onWhy: () => void
  /** Where the rod is tapped after its turn, what is read then. */
  tap?: ReactNode
  /** The rod tapped last is being worked out: nothing is to be turned yet. */
  working?: boolean
}

function lapWords(next: Of<'turn'>, taps: boolean): string {
  const of = next.step.laps.length
  if (taps) return `Round ${next.lapNo + 1}, turn it, then tap it`
  if (next.lap.each_32 === null) return `Round ${next.lapNo + 1}, next rod`
  const pass = `Pass ${next.lapNo + 1} of ${of}`
  if (next.group.length === 1) return `${pass}, next rod`
  return next.by === 'pair' ? `${pass}, together` : `${pass}, in this order`
}

/** One rod, two facing ones, or a whole pass: how far, and why. */
export function TurnPanel({ bench, next, exceptions, onWhy, tap, working = false }: Props) {
  const first = next.lapNo === 0 && next.lap.rods.every((rod) => !rod.turned)
  const why = next.lap.rods.find((each) => each.rod === next.rod)?.why
  const many = next.group.length > 2
  return (
    <Panel>
      {first ? <Cautions of={next.step.cautions} /> : null}
      <Noticed lap={next.lap} />
      <Two>
        <div data-testid="instruction">
          <Label>{working ? 'Heard' : lapWords(next, Boolean(tap))}</Label>
          {working ? (
            <>
              <Big>…</Big>
              <Waits>what is left</Waits>
            </>
          ) : (
            <>
              <Rods group={next.group} />
              <Amount>
                {next.owed > 0 ? 'up' : 'down'} {amountOf(next.owed)} {turnNoun(next.owed)}
              </Amount>
            </>
          )}
        </div>
        <Bearing
          rods={bench.head.rods}
          lost={bench.head.lost}
          badge={bench.badge}
          now={working ? null : next.rod}
          wires={bench.snare}
          size={many ? 112 : 128}
          words={many || working ? '' : bearingWords(next.rod, bench.head.rods, bench.badge)}
          label={`Rod ${next.rod}: ${bearingWords(next.rod, bench.head.rods, bench.badge)}`}
        />
      </Two>
      {many || tap ? null : <Tally turns={next.owed} owed size={46} words="said" />}
      {next.group.length > 1 ? <Differently group={next.group} exceptions={exceptions} /> : null}
      {tap}
      {next.lap.until ? <Why>Until {next.lap.until}.</Why> : null}
      <Why>
        {why || next.step.say} {next.lap.plan ? <Ask onPress={onWhy}>Why this much?</Ask> : null}
      </Why>
      {first ? <Because key={next.step.id} of={next.step.why} /> : null}
      {first && next.step.points.length ? (
        <Points>
          {next.step.points.map((point) => (
            <li key={point}>{point}</li>
          ))}
        </Points>
      ) : null}
    </Panel>
  )
}

function Rods({ group }: { group: number[] }) {
  if (group.length === 1) return <Big>{group[0]}</Big>
  if (group.length === 2) return <Amid>{group.join(' and ')}</Amid>
  return <Order>{group.join('  ')}</Order>
}

const Two = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  gap: 8px;
  > div {
    min-width: 0;
  }
  > figure {
    margin: -8px -8px 0 0;
  }
`
const Waits = styled(Amount)`
  color: var(--soft);
`
const Order = styled.p`
  font: 650 34px/1.3 var(--slab);
  letter-spacing: -0.01em;
  white-space: pre-wrap;
  max-width: 270px;
  padding: 6px 0 8px;
  @media (max-width: 700px) {
    font-size: 28px;
    max-width: 220px;
  }
`
const Ask = styled(AriaButton)`
  border: 0;
  padding: 2px 0;
  background: none;
  color: var(--soft);
  cursor: pointer;
  border-bottom: 1.5px dotted currentColor;
  font-size: inherit;
`
