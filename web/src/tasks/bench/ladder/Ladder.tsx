import styled from 'styled-components'
import type { Bench, Lap } from '../log/types'
import type { Exception } from '../kinds/passes/useExceptions'
import { Rung } from './Rung'
import { ruled, rulerOf } from './scale'

interface Props {
  bench: Bench
  lap: Lap
  /** The rod in hand. */
  rod: number | null
  onRod?: ((rod: number) => void) | undefined
  exceptions?: ReadonlyMap<number, Exception>
}

/** The head as a ladder of beams: one rung per facing pair, in working order, over the wanted pitch. */
export function Ladder({ bench, lap, rod, onRod, exceptions }: Props) {
  return (
    <Whole>
      <Rungs aria-label="Pairs of rods" data-many={bench.head.pairs.length > 5 || undefined}>
        {bench.head.pairs.map((pair) => (
          <Rung
            key={pair.join()}
            pair={pair}
            lap={lap}
            lost={bench.head.lost}
            hand={rod}
            onRod={onRod}
            exceptions={exceptions}
          />
        ))}
      </Rungs>
      {ruled(lap) ? (
        <Ruler>
          dotted line: wanted; from tick to tick <b>{rulerOf(lap).cents} cents</b>
        </Ruler>
      ) : null}
    </Whole>
  )
}

const Whole = styled.div`
  display: flex;
  flex-direction: column;
  height: 100%;
  min-height: 0;
  > ol {
    flex: 1;
    min-height: 0;
  }
`
const Ruler = styled.p`
  padding: 0 28px 8px;
  font-size: 13px;
  color: var(--soft);
  text-align: center;
  b {
    font-weight: 600;
  }
`

const Rungs = styled.ol`
  display: grid;
  grid-auto-rows: minmax(72px, 132px);
  align-content: center;
  height: 100%;
  padding: 10px 20px;
  &[data-many] {
    grid-auto-rows: minmax(62px, 1fr);
  }
  @media (max-width: 700px) {
    padding: 4px 8px;
    grid-auto-rows: minmax(88px, auto);
    &[data-many] {
      grid-auto-rows: minmax(84px, auto);
    }
  }
`
