import styled from 'styled-components'

interface Props {
  rods: number
  lost?: readonly number[]
  badge: string
  /** The rod in hand. */
  now?: number | null
  /** Wires lie under it: the strainer sits a quarter round from the badge, the butt plate across. */
  wires?: boolean
  port?: boolean
  size?: number
  /** Degrees clockwise from the badge: the line the lower of a split pair rings along. */
  axis?: number | null
  label: string
  /** Said under it. */
  words?: string
}

const R = 62
/** So much of the edge is drawn, either way from the rod in hand. */
const REACH = 48
const RAD = Math.PI / 180

const point = (degrees: number, radius: number): [number, number] => [
  Math.sin(degrees * RAD) * radius,
  -Math.cos(degrees * RAD) * radius,
]

/** Degrees clockwise from the badge, which sits midway between the last rod and the first, or at the first. */
export const degreesOf = (rod: number, rods: number, badge: string): number =>
  ((rod - (badge === 'at-rod' ? 1 : 0.5)) * 360) / rods

const ORDINALS = ['1st', '2nd', '3rd']
const ordinal = (count: number): string => ORDINALS[count - 1] ?? `${count}th`

/** Where a rod is found, said from the badge: '2nd right of the badge'. */
export function bearingWords(rod: number, rods: number, badge: string): string {
  if (badge === 'none') return rod === 1 ? 'the first' : `${ordinal(rod - 1)} clockwise from rod 1`
  const right = badge === 'at-rod' ? rod - 1 : rod
  const left = rods - rod + 1
  if (right === 0) return 'at the badge'
  if (right === left) return 'across from the badge'
  return right < left ? `${ordinal(right)} right of the badge` : `${ordinal(left)} left of the badge`
}

/** The short piece of the edge that is drawn, round the rod in hand. */
export function edgeArc(middle: number, radius: number): string {
  const [x1, y1] = point(middle - REACH, radius)
  const [x2, y2] = point(middle + REACH, radius)
  return `M${x1} ${y1} A${radius} ${radius} 0 0 1 ${x2} ${y2}`
}

interface Marks {
  radius: number
  badge: string
  wires?: boolean | undefined
  port?: boolean | undefined
}

/** What one finds a place by: badge, strainer and butt plate, port, player. */
export function Landmarks({ radius, badge, wires, port }: Marks) {
  return (
    <g className="landmarks">
      {badge === 'none' ? null : <path className="badge" d={`M-7 -${radius + 22} h14 l-7 11 z`} />}
      {wires ? (
        <>
          <path className="part" d={`M${radius + 6} -9 v18 M${radius + 6} 0 h9`} />
          <path className="part" d={`M-${radius + 6} -9 v18`} />
        </>
      ) : null}
      {port ? <circle className="part" cx={radius * 0.5} cy={radius * 0.38} r={radius / 5} /> : null}
      <path className="player" d={`M-9 ${radius + 20} q9 -13 18 0`} />
    </g>
  )
}

/**
 * Where one stands at the head: a short arc of its edge with the rod in hand as a stroke across it, and what one finds the place by: badge,
 * strainer and butt plate, port, player. For orientation only; ink alone.
 */
export function Bearing({
  rods,
  lost = [],
  badge,
  now = null,
  wires,
  port,
  size = 150,
  axis = null,
  label,
  words,
}: Props) {
  const middle = now === null ? 0 : degreesOf(now, rods, badge)
  const offset = badge === 'at-rod' ? 180 / rods : 0
  const [x1, y1] = point(middle, R - 17)
  const [x2, y2] = point(middle, R + 17)
  return (
    <Figure>
      <Drawing width={size} height={size} viewBox="-88 -88 176 176" role="img" aria-label={label}>
        <path className="edge" d={edgeArc(middle, R)} />
        <Landmarks radius={R} {...{ badge, wires, port }} />
        {size > 150 && badge !== 'none' ? (
          <text x={30} y={-R - 13}>
            badge
          </text>
        ) : null}
        {size > 150 ? <text y={R + 4}>player</text> : null}
        {axis === null ? null : (
          <line className="axis" y1={-R + 12} y2={R - 12} transform={`rotate(${axis - offset})`} />
        )}
        {Array.from({ length: rods }, (_, n) => n + 1).map((rod) => {
          const [x, y] = point(degreesOf(rod, rods, badge), R)
          if (rod === now) return null
          return lost.includes(rod) ? (
            <circle key={rod} className="gone" data-rod={rod} cx={x} cy={y} r={4} />
          ) : (
            <circle key={rod} className="rod" data-rod={rod} cx={x} cy={y} r={1.9} />
          )
        })}
        {now === null ? null : <line className="hand" data-rod={now} x1={x1} y1={y1} x2={x2} y2={y2} />}
      </Drawing>
      {words ? <figcaption aria-hidden>{words}</figcaption> : null}
    </Figure>
  )
}

const Figure = styled.figure`
  flex: none;
  display: flex;
  flex-direction: column;
  align-items: center;
  figcaption {
    font-size: 13.5px;
    color: var(--soft);
    white-space: nowrap;
  }
`

const Drawing = styled.svg`
  display: block;
  flex: none;
  path,
  line,
  circle {
    fill: none;
    stroke: var(--ink);
    stroke-linecap: round;
  }
  .edge {
    stroke-width: 3;
  }
  .hand {
    stroke-width: 8;
  }
  .badge,
  .rod {
    fill: var(--ink);
    stroke: none;
  }
  .part,
  .player,
  .gone {
    stroke-width: 2;
  }
  .gone {
    fill: var(--ground);
  }
  text {
    font: 400 11px var(--text);
    fill: var(--soft);
    text-anchor: middle;
  }
  .axis {
    stroke-width: 1.6;
    stroke-dasharray: 6 4;
  }
`
