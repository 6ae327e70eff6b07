import styled from 'styled-components'
import type { Schemas } from '../../api/client'

const [WIDE, HIGH] = [200, 70]

/** Steps to the right and down, as a path; from 1 at the left. */
function steps(points: readonly (readonly [number, number])[], x: (m: number) => number): string {
  const y = (share: number) => HIGH - share * HIGH
  return points.map(([months, share]) => `H${x(months).toFixed(1)} V${y(share).toFixed(1)}`).join(' ')
}

/** The share of heads still on, month by month, in its band; a stroke where half are expected to be changed. */
export function LifeCurve({ life }: { life: Schemas['LifeOut'] }) {
  const last = life.curve.at(-1)?.months ?? 0
  const end = Math.max(last, life.median, 12) * 1.1
  const x = (months: number) => (months / end) * WIDE
  const of = (key: 'share' | 'low' | 'high') => life.curve.map((each) => [each.months, each[key]] as const)
  const back = [...life.curve].reverse()
  const band = life.curve.length
    ? `M0 0 ${steps(of('high'), x)} ${back
        .map((each, n) => {
          const before = back[n + 1]?.low ?? 1
          return `V${(HIGH - each.low * HIGH).toFixed(1)} H${x(each.months).toFixed(1)} V${(HIGH - before * HIGH).toFixed(1)}`
        })
        .join(' ')} H0 Z`
    : ''
  return (
    <Drawing
      viewBox={`-4 -6 ${WIDE + 8} ${HIGH + 24}`}
      role="img"
      aria-label={`${life.words}: half are changed by month ${Math.round(life.median)}`}
    >
      {band ? <path d={band} className="band" /> : null}
      <path d={`M0 ${HIGH} H${WIDE} M0 0 V${HIGH}`} className="axis" />
      {life.curve.length ? <path d={`M0 0 ${steps(of('share'), x)}`} className="curve" /> : null}
      <path d={`M${x(life.median)} 0 V${HIGH}`} className="half" />
      <text x={x(life.median)} y={HIGH + 13}>
        {Math.round(life.median)}
      </text>
      <text x={0} y={HIGH + 13}>
        0
      </text>
    </Drawing>
  )
}

const Drawing = styled.svg`
  display: block;
  width: 100%;
  max-width: 220px;
  .band {
    fill: var(--faint);
  }
  .axis {
    fill: none;
    stroke: var(--rule);
  }
  .curve {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .half {
    stroke: var(--soft);
    stroke-dasharray: 2 3;
  }
  text {
    font: 400 10px var(--mono);
    fill: var(--soft);
    text-anchor: middle;
  }
`
