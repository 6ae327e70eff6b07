import styled from 'styled-components'
import type { Schemas } from '../../../../api/client'

interface Props {
  pull: Schemas['PullOut']
  badge: string
  count: number
}

const R = 58
/** Turns that stand a rod this far off the even circle. */
const REACH = { turns: 0.25, out: 22 }

const outward = (turns: number): number =>
  R + Math.max(-REACH.out, Math.min(REACH.out, (turns / REACH.turns) * REACH.out))

/** How the pull lies round the edge: the part pitch shows, and the part only the count or a gauge shows. */
export function PullPicture({ pull, badge, count }: Props) {
  if (!pull.rods.length) return null
  const at = (rod: number, radius: number): [number, number] => {
    const angle = ((rod - (badge === 'at-rod' ? 1 : 0.5)) * 2 * Math.PI) / count
    return [Math.sin(angle) * radius, -Math.cos(angle) * radius]
  }
  const ring = (values: readonly number[]): string =>
    pull.rods.map((rod, n) => at(rod, outward(values[n] ?? 0)).join(' ')).join(' L ')
  const known = pull.told_by.length > 0
  return (
    <Figure>
      <svg
        viewBox="-104 -104 208 208"
        width={190}
        height={190}
        role="img"
        aria-label="Pull at each rod, from above"
      >
        <circle r={R} className="even" />
        {known ? <path d={`M ${ring(pull.unheard)} Z`} className="unheard" /> : null}
        <path d={`M ${ring(pull.by_pitch)} Z`} className="heard" />
        {pull.rods.map((rod, n) => {
          const total = (pull.by_pitch[n] ?? 0) + (known ? (pull.unheard[n] ?? 0) : 0)
          const room = pull.sd[n] ?? 0
          const [x1, y1] = at(rod, outward(total - room))
          const [x2, y2] = at(rod, outward(total + room))
          const [tx, ty] = at(rod, R + 36)
          return (
            <g key={rod}>
              <line x1={x1} y1={y1} x2={x2} y2={y2} />
              <text x={tx} y={ty}>
                {rod}
              </text>
            </g>
          )
        })}
      </svg>
      <figcaption>
        <b>Pull at each rod</b>
        <span>Dotted: even. Outside it is tighter, inside slacker.</span>
        <span>
          <Key data-kind="heard" /> what pitch shows
        </span>
        <span>
          {known ? (
            <>
              <Key data-kind="unheard" /> what pitch cannot show
            </>
          ) : (
            'What pitch cannot show is not known here.'
          )}
        </span>
        <span>{pull.words}</span>
      </figcaption>
    </Figure>
  )
}

const Figure = styled.figure`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  svg {
    flex: none;
  }
  .even {
    fill: none;
    stroke: var(--soft);
    stroke-width: 1.4;
    stroke-dasharray: 1 4;
  }
  .heard {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2.4;
  }
  .unheard {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
    stroke-dasharray: 7 4;
  }
  g line {
    stroke: var(--soft);
    stroke-width: 1.2;
  }
  text {
    font: 600 13px var(--slab);
    fill: var(--soft);
    text-anchor: middle;
    dominant-baseline: central;
  }
  figcaption {
    flex: 1 1 150px;
    display: grid;
    gap: 5px;
    font-size: 14.5px;
    line-height: 1.35;
  }
`
const Key = styled.i`
  display: inline-block;
  width: 26px;
  margin-right: 6px;
  vertical-align: middle;
  border-top: 2.4px solid var(--ink);
  &[data-kind='unheard'] {
    border-top: 1.6px dashed var(--ink);
  }
`
