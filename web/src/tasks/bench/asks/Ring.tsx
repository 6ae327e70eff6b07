import styled from 'styled-components'
import type { Ask } from '../log/types'

export const SPOT = 44
const GAP = 30

/** A ring with room for a thumb at each of its places. */
export function ringOf(places: number): { radius: number; size: number } {
  const radius = Math.max(124, (places * (SPOT + 2)) / (2 * Math.PI))
  return { radius, size: 2 * radius + SPOT + 4 }
}

/** Where a place is on the ring, in turns clockwise from the badge, as the plan view has it: rod 1 at the badge, or the first clockwise of it. */
export function turnOf(value: string, places: number, badge: string): number {
  const [kind, number] = value.split('-')
  if (kind === 'hour') return Number(number) / 12
  const rod = Number(number) - (badge === 'at-rod' ? 1 : 0.5) + (kind === 'gap' ? 0.5 : 0)
  return rod / (places / 2)
}

export function placeOf(value: string, places: number, badge: string, radius: number): [number, number] {
  const angle = 2 * Math.PI * turnOf(value, places, badge)
  return [radius * Math.sin(angle), -radius * Math.cos(angle)]
}

interface Props {
  asks: readonly Ask[]
  badge: string
  /** By itself: nothing lies over it to be tapped, so it shows where the rods are and tells in words what sits where. */
  alone?: boolean
}

/** The drum from above, with what sits where. */
export function Ring({ asks, badge, alone }: Props) {
  const options = asks[0]?.options ?? []
  const places = options.length
  const { radius, size } = ringOf(places)
  const placed = asks.flatMap((ask) => ask.values.map((value) => ({ ask, value })))
  const words = placed.map(({ ask }) => `${ask.words} ${ask.said}`).join('; ')
  return (
    <Drum
      viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`}
      width={size}
      height={size}
      {...(alone ? { role: 'img', 'aria-label': `From above: ${words}` } : { 'aria-hidden': true })}
    >
      <circle r={radius - GAP} />
      {badge === 'none' ? null : <path d={`M-8 ${GAP + 10 - radius} h16 l-8 12 z`} />}
      {(alone ? options : []).map(({ value }) => {
        const [x, y] = placeOf(value, places, badge, radius - GAP)
        return value.startsWith('gap') ? null : <circle key={value} cx={x} cy={y} r={3.5} className="rod" />
      })}
      {placed.map(({ ask, value }, n) => {
        const [x, y] = placeOf(value, places, badge, radius - GAP)
        const far = 1 - (40 + 20 * n) / (radius - GAP)
        return (
          <g key={ask.name}>
            <line x1={x} y1={y} x2={x * (far + 0.1)} y2={y * (far + 0.1)} />
            <text x={x * far} y={y * far}>
              {ask.name.split('-')[0]}
            </text>
          </g>
        )
      })}
    </Drum>
  )
}

const Drum = styled.svg`
  max-width: 100%;
  circle {
    fill: none;
    stroke: var(--ink);
    stroke-width: 3;
  }
  line {
    stroke: var(--ink);
    stroke-width: 2;
  }
  path {
    fill: var(--ink);
  }
  text {
    fill: var(--ink);
    font: 600 15px var(--slab);
    text-anchor: middle;
    dominant-baseline: central;
    paint-order: stroke;
    stroke: var(--ground);
    stroke-width: 5px;
  }
  circle.rod {
    fill: var(--ink);
    stroke: none;
  }
`
