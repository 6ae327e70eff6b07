import type { MouseEvent } from 'react'
import styled from 'styled-components'
import type { Mark, Side, Spot, WalkDrum } from './log/fold'
import { Strokes } from './Strokes'

const R = 74

interface Props {
  drum: WalkDrum
  side: Side
  marks: readonly Mark[]
  /** From earlier visits, drawn paler. */
  known: readonly Mark[]
  missing: readonly number[]
  inHand: string | null
  picked: Spot | null
  rod: number | null
  onSpot: (spot: Spot) => void
  onRod: (rod: number) => void
}

function at(rod: number, rods: number, atRod: boolean, radius: number): [number, number] {
  const angle = ((rod - (atRod ? 1 : 0.5)) * 2 * Math.PI) / rods
  return [Math.sin(angle) * radius, -Math.cos(angle) * radius]
}

/** One head from above, to put what was seen where it sits. Rods are buttons; the film takes a tap anywhere. */
export function HeadPlan(props: Props) {
  const { drum, side, marks, known, missing, inHand, picked, rod, onSpot, onRod } = props
  const rods = side === 'batter' ? drum.rods_batter : drum.rods_resonant
  const atRod = drum.badge === 'at-rod'
  const tapped = (event: MouseEvent<SVGCircleElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const x = ((event.clientX - box.left) / box.width) * 2 - 1
    const y = 1 - ((event.clientY - box.top) / box.height) * 2
    if (Math.hypot(x, y) <= 1) onSpot({ x: Math.round(x * 100) / 100, y: Math.round(y * 100) / 100 })
  }
  return (
    <Drawing viewBox="-108 -108 216 216" role="group" aria-label={`${side} head from above`}>
      <circle r={R} className="film" onClick={tapped} />
      <circle r={R - 8} className="faint" />
      <ellipse rx={R * 0.4} ry={R * 0.34} className="played" />
      {drum.wires && side === 'resonant' ? (
        <path d={`M-${R - 12} -8 H${R - 12} M-${R - 12} 8 H${R - 12}`} className="faint" />
      ) : null}
      {drum.port && side === 'resonant' ? (
        <circle cx={R * 0.45} cy={R * 0.35} r={13} className="faint" />
      ) : null}
      <circle r={R} className="hoop" />
      {drum.badge === 'none' ? null : <path d="M-6 -97 h12 l-6 9 z" className="badge" />}
      {Array.from({ length: rods }, (_, n) => n + 1).map((each) => {
        const [x1, y1] = at(each, rods, atRod, R - 6)
        const [x2, y2] = at(each, rods, atRod, R + 6)
        const [tx, ty] = at(each, rods, atRod, R + 20)
        const lost = missing.includes(each)
        return (
          <g
            key={each}
            className="rod"
            role="button"
            tabIndex={0}
            aria-label={`rod ${each}${lost ? ', missing' : ''}`}
            aria-pressed={rod === each}
            data-lost={lost || undefined}
            onClick={() => onRod(each)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter' && event.key !== ' ') return
              event.preventDefault()
              onRod(each)
            }}
          >
            <circle cx={(x1 + tx) / 2} cy={(y1 + ty) / 2} r={17} className="hand" />
            <line x1={x1} y1={y1} x2={x2} y2={y2} />
            <text x={tx} y={ty}>
              {each}
            </text>
          </g>
        )
      })}
      {picked ? <circle cx={picked.x * R} cy={-picked.y * R} r={9} className="picked" /> : null}
      {known.map((mark) => (
        <Strokes key={mark.event} spot={mark.spot} radius={R} degree={mark.degree} state="known" />
      ))}
      {marks.map((mark) => (
        <Strokes
          key={mark.event}
          spot={mark.spot}
          radius={R}
          degree={mark.degree}
          state={mark.event === inHand ? 'hand' : 'seen'}
        />
      ))}
    </Drawing>
  )
}

const Drawing = styled.svg`
  display: block;
  width: 100%;
  max-width: 460px;
  aspect-ratio: 1;
  margin: 0 auto;
  touch-action: manipulation;
  .film {
    fill: var(--lifted);
    cursor: crosshair;
  }
  .hoop {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2.6;
    pointer-events: none;
  }
  .faint,
  .played {
    fill: none;
    stroke: var(--rule);
    stroke-width: 0.9;
    pointer-events: none;
  }
  .played {
    stroke: var(--soft);
    stroke-dasharray: 0.6 2.6;
    stroke-linecap: round;
    stroke-width: 1.2;
  }
  .badge {
    fill: var(--ink);
  }
  .picked {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
    stroke-dasharray: 3 2.4;
    pointer-events: none;
  }
  .rod {
    cursor: pointer;
    outline-offset: -2px;
  }
  .hand {
    fill: transparent;
  }
  .rod line {
    stroke: var(--ink);
    stroke-width: 5;
  }
  .rod text {
    font: 600 13px var(--slab);
    fill: var(--ink);
    text-anchor: middle;
    dominant-baseline: central;
  }
  .rod[aria-pressed='true'] .hand {
    fill: var(--faint);
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .rod[data-lost] line {
    stroke: var(--red);
  }
  .rod[data-lost] text {
    fill: var(--red);
  }
`
