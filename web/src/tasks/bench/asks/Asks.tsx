import styled from 'styled-components'
import type { Body } from '../../../api/outbox'
import type { Ask, Bench, Step } from '../log/types'
import { PlacesRound } from './PlacesRound'
import type { AskProps } from './props'
import { Several } from './Several'
import { Typed } from './Typed'

interface Props {
  bench: Bench
  step: Step
  enter: (body: Body) => void
}

/** Of a range the one end, while the other is written. */
const otherEnd = (name: string): string =>
  name.includes('low') ? name.replace('low', 'high') : name.replace('high', 'low')

const isRound = (ask: Ask) => ask.options.length > 0 && ask.options.every(({ value }) => PLACE.test(value))
const PLACE = /^(rod|gap|hour)-\d+$/

/** What a step asks, each question with the means its answer takes. */
export function Asks({ bench, step, enter }: Props) {
  const answer = (ask: Ask, values: string[]) =>
    enter({ kind: 'answer', step: step.id, question: ask.name, values, unit: ask.unit })
  const round = step.asks.filter(isRound)
  const plain = step.asks.filter((each) => !isRound(each))
  return (
    <List aria-label="Asked here">
      {round.length ? <PlacesRound asks={round} badge={bench.badge} answer={answer} /> : null}
      {plain.map((each) => (
        <Question
          key={each.name}
          ask={each}
          answer={answer}
          other={plain.find(({ name }) => name !== each.name && name === otherEnd(each.name))}
        />
      ))}
    </List>
  )
}

function Question({ ask, answer, other }: AskProps) {
  return (
    <div>
      {ask.options.length ? <Several ask={ask} answer={answer} /> : null}
      {ask.unit || ask.own ? <Typed ask={ask} answer={answer} other={other} /> : null}
    </div>
  )
}

const List = styled.section`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 290px), 1fr));
  align-items: start;
  gap: 12px 28px;
  padding: 18px 28px;
  @media (max-width: 700px) {
    padding: 12px 16px;
  }
`
