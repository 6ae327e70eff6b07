import styled from 'styled-components'
import type { Spot } from './log/fold'

/** One to three strokes at the spot where something sits: how bad it is. */
export function Strokes({
  spot,
  radius,
  degree,
  state,
}: {
  spot: Spot | null
  radius: number
  degree: number
  state: 'seen' | 'hand' | 'known'
}) {
  if (!spot) return null
  const [x, y] = [spot.x * radius, -spot.y * radius]
  return (
    <Drawn data-state={state}>
      {state === 'hand' ? <circle cx={x} cy={y} r={12} /> : null}
      {Array.from({ length: degree }, (_, n) => {
        const left = x + (n - (degree - 1) / 2) * 5
        return <line key={n} x1={left - 1.2} y1={y + 6.5} x2={left + 1.2} y2={y - 6.5} />
      })}
    </Drawn>
  )
}

const Drawn = styled.g`
  pointer-events: none;
  line {
    stroke: var(--ink);
    stroke-width: 2.4;
    stroke-linecap: round;
  }
  circle {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  &[data-state='known'] line {
    stroke: var(--soft);
    stroke-width: 1.6;
  }
`
