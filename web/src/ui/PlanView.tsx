import styled from 'styled-components'

interface Props {
  rods: number
  lost?: readonly number[]
  badge: string
  /** The rod in hand, and the one after it. */
  now?: number | null
  next?: number | null
  owed?: boolean
  size?: number
  /** Written in the middle. */
  middle?: string
  label: string
  bed?: boolean
  port?: boolean
  /** Degrees clockwise from the badge: the line the lower of a split pair rings along. */
  axis?: number | null
}

const R = 60

function at(rod: number, rods: number, badge: string, radius: number): [number, number] {
  const angle = ((rod - (badge === 'at-rod' ? 1 : 0.5)) * 2 * Math.PI) / rods
  return [Math.sin(angle) * radius, -Math.cos(angle) * radius]
}

/** The head from above, for orientation only: badge, rods, which is number 1 and which is in hand. */
export function PlanView({
  rods,
  lost = [],
  badge,
  now = null,
  next = null,
  owed = true,
  size = 170,
  middle,
  label,
  bed,
  port,
  axis = null,
}: Props) {
  return (
    <Drawing width={size} height={size} viewBox="-88 -88 176 176" role="img" aria-label={label}>
      <circle r={R} className="hoop" />
      <circle r={R - 7} className="edge" />
      {badge === 'none' ? null : <path d="M-6 -76 h12 l-6 9 z" className="badge" />}
      {bed ? (
        <path d={`M-${R - 14} -9 h${2 * (R - 14)} M-${R - 14} 9 h${2 * (R - 14)}`} className="bed" />
      ) : null}
      {axis === null ? null : (
        <line
          className="axis"
          x1={0}
          y1={-R + 9}
          x2={0}
          y2={R - 9}
          transform={`rotate(${axis - (badge === 'at-rod' ? 180 / rods : 0)})`}
        />
      )}
      {port ? <circle cx={R * 0.42} cy={R * 0.32} r={13} className="edge" /> : null}
      {Array.from({ length: rods }, (_, n) => n + 1).map((rod) => {
        const [x1, y1] = at(rod, rods, badge, R - 5)
        const [x2, y2] = at(rod, rods, badge, R + 5)
        const [tx, ty] = at(rod, rods, badge, R + 17)
        const state = rod === now ? (owed ? 'owed' : 'now') : rod === next ? 'next' : undefined
        return (
          <g key={rod} data-state={state} data-lost={lost.includes(rod) || undefined}>
            {lost.includes(rod) ? (
              <circle cx={(x1 + x2) / 2} cy={(y1 + y2) / 2} r={4} className="gone" />
            ) : (
              <line x1={x1} y1={y1} x2={x2} y2={y2} />
            )}
            <text x={tx} y={ty}>
              {rod}
            </text>
          </g>
        )
      })}
      {middle ? (
        <text x={0} y={1} className="middle">
          {middle}
        </text>
      ) : null}
    </Drawing>
  )
}

const Drawing = styled.svg`
  display: block;
  flex: none;
  .hoop {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .edge,
  .bed {
    fill: none;
    stroke: var(--rule);
    stroke-width: 1.2;
  }
  .axis {
    stroke: var(--ink);
    stroke-width: 1.6;
    stroke-dasharray: 6 4;
  }
  .badge {
    fill: var(--ink);
  }
  .gone {
    fill: var(--ground);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  g line {
    stroke: var(--ink);
    stroke-width: 2.2;
  }
  text {
    font: 600 12.5px var(--slab);
    fill: var(--soft);
    text-anchor: middle;
    dominant-baseline: central;
  }
  .middle {
    font: 400 12px var(--text);
  }
  g[data-state='owed'] line,
  g[data-state='now'] line {
    stroke-width: 7;
  }
  g[data-state='owed'] line {
    stroke: var(--red);
  }
  g[data-state='owed'] text {
    fill: var(--red);
    font-size: 16px;
  }
  g[data-state='now'] text {
    fill: var(--ink);
    font-size: 16px;
  }
  g[data-state='next'] text {
    fill: var(--ink);
  }
`
