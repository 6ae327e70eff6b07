import styled from 'styled-components'
import type { Lap } from '../log/types'
import type { Exception } from '../kinds/passes/useExceptions'
import { Beam } from './Beam'
import { RodEnd } from './RodEnd'
import { endOf, ofPair, ruled, rulerOf } from './scale'

interface Props {
  pair: number[]
  lap: Lap
  lost: readonly number[]
  hand: number | null
  onRod: ((rod: number) => void) | undefined
  exceptions?: ReadonlyMap<number, Exception> | undefined
}

const asked = (lap: Lap, rod: number): boolean =>
  Boolean(lap.plan?.findings.some((each) => each.rods.includes(rod)))

/** One facing pair; lifted out of the ladder while one of its rods is in hand. */
export function Rung({ pair, lap, lost, hand, onRod, exceptions }: Props) {
  const [left, right = null] = pair
  const inHand = hand !== null && pair.includes(hand)
  return (
    <Row data-hand={inHand || undefined}>
      {left === undefined ? null : (
        <RodEnd
          number={left}
          end={endOf(lap, left)}
          of={ofPair(endOf(lap, left).rod?.reading?.hz, lap.pair)}
          lost={lost.includes(left)}
          hand={hand === left}
          asked={asked(lap, left)}
          exception={exceptions?.get(left)}
          onRod={onRod}
        />
      )}
      <Beam
        left={left === undefined ? null : endOf(lap, left)}
        right={right === null ? null : endOf(lap, right)}
        pass={lap.each_32 !== null}
        ticks={ruled(lap) ? rulerOf(lap).at : []}
      />
      {right === null ? (
        <span />
      ) : (
        <RodEnd
          number={right}
          end={endOf(lap, right)}
          of={ofPair(endOf(lap, right).rod?.reading?.hz, lap.pair)}
          lost={lost.includes(right)}
          hand={hand === right}
          asked={asked(lap, right)}
          exception={exceptions?.get(right)}
          onRod={onRod}
          mirror
        />
      )}
    </Row>
  )
}

const Row = styled.li`
  display: grid;
  grid-template-columns: 178px minmax(60px, 1fr) 178px;
  gap: 18px;
  align-items: stretch;
  border: 1.5px solid transparent;
  padding: 0 12px;
  &[data-hand] {
    background: var(--lifted);
    border-color: var(--ink);
  }
  @media (max-width: 1000px) {
    grid-template-columns: 168px minmax(60px, 1fr) 168px;
  }
  @media (max-width: 700px) {
    grid-template-columns: 96px minmax(50px, 1fr) 96px;
    gap: 8px;
    padding: 0 6px;
    &[data-hand] {
      order: -1; /* the pair in hand is in sight under its instruction */
    }
  }
`
