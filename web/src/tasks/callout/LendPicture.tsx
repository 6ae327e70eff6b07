import styled from 'styled-components'
import type { Book, Step } from './log/fold'

const R = 62

/** A rod's place on a head seen from above, rod 1 half a step clockwise of the badge. */
function at(rod: number, rods: number, radius: number): [number, number] {
  const angle = ((rod - 0.5) * 2 * Math.PI) / rods
  return [Math.sin(angle) * radius, -Math.cos(angle) * radius]
}

function Head({
  x,
  rods,
  rod,
  name,
  gives,
}: {
  x: number
  rods: number
  rod: number
  name: string
  gives: boolean
}) {
  return (
    <g transform={`translate(${x} 0)`}>
      <circle r={R} className="hoop" />
      {Array.from({ length: rods }, (_, n) => n + 1).map((each) => {
        const [x1, y1] = at(each, rods, R - 5)
        const [x2, y2] = at(each, rods, R + 5)
        return each === rod ? null : <line key={each} {...{ x1, y1, x2, y2 }} />
      })}
      <circle cx={at(rod, rods, R)[0]} cy={at(rod, rods, R)[1]} r={6} className={gives ? 'gap' : 'filled'} />
      <text y={0}>{name}</text>
      <text y={19}>rod {rod}</text>
    </g>
  )
}

/** Which rod goes where: out of the one head, into the other. */
export function LendPicture({ step, book }: { step: Step; book: Book }) {
  const gives = step.gives
  if (!gives) return null
  const taker = book.drums.find((drum) => drum.tag === gives.taker)?.name ?? gives.taker
  const [ax, ay] = at(gives.giver_rod, gives.giver_rods, R + 9)
  const [bx, by] = at(gives.taker_rod, gives.taker_rods, R + 9)
  return (
    <Drawing
      viewBox="-175 -84 350 186"
      role="img"
      aria-label={`Rod ${gives.giver_rod} of ${gives.giver_name} goes to rod ${gives.taker_rod} of ${taker}`}
    >
      <path d={`M${ax - 92} ${ay} C ${ax - 60} 122, ${bx + 60} 122, ${bx + 92} ${by}`} className="way" />
      <Head x={-92} rods={gives.giver_rods} rod={gives.giver_rod} name={gives.giver_name} gives />
      <Head x={92} rods={gives.taker_rods} rod={gives.taker_rod} name={taker} gives={false} />
    </Drawing>
  )
}

const Drawing = styled.svg`
  display: block;
  width: min(100%, 420px);
  .hoop {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2.4;
  }
  line {
    stroke: var(--ink);
    stroke-width: 3.4;
  }
  .way {
    fill: none;
    stroke: var(--red);
    stroke-width: 2.6;
    stroke-dasharray: 1 6;
    stroke-linecap: round;
  }
  .gap {
    fill: var(--ground);
    stroke: var(--red);
    stroke-width: 2.6;
  }
  .filled {
    fill: var(--red);
  }
  text {
    font: 400 14.5px var(--text);
    fill: var(--soft);
    text-anchor: middle;
    dominant-baseline: central;
  }
`
