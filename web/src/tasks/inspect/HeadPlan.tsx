import type { MouseEvent } from 'react'
import styled from 'styled-components'
import { degreesOf, edgeArc, Landmarks } from '../../ui/Bearing'
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

function at(rod: number, rods: number, badge: string, radius: number): [number, number] {
  const angle = (degreesOf(rod, rods, badge) * Math.PI) / 180
  return [Math.sin(angle) * radius, -Math.cos(angle) * radius]
}

/** One head from above, to put what was seen where it sits: the Bench’s own mark, made large. Rods are buttons; the film takes a tap anywhere. */
export function HeadPlan(props: Props) {
  const { drum, side, marks, known, missing, inHand, picked, rod, onSpot, onRod } = props
  const rods = side === 'batter' ? drum.rods_batter : drum.rods_resonant
  const { badge } = drum
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
      <path d={edgeArc(rod === null ? 0 : degreesOf(rod, rods, badge), R)} className="edge" />
      <Landmarks
        radius={R}
        badge={badge}
        wires={Boolean(drum.wires)}
        port={Boolean(drum.port) && side === 'resonant'}
      />
      {Array.from({ length: rods }, (_, n) => n + 1).map((each) => {
        const [x1, y1] = at(each, rods, badge, R - 8)
        const [x2, y2] = at(each, rods, badge, R + 8)
        const [x, y] = at(each, rods, badge, R)
        const [tx, ty] = at(each, rods, badge, R + 23)
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
            <circle cx={x} cy={y} r={17} className="hand" />
            {rod === each ? (
              <>
                <line x1={x1} y1={y1} x2={x2} y2={y2} />
                <text x={tx} y={ty}>
                  {each}
                </text>
              </>
            ) : (
              <circle cx={x} cy={y} r={lost ? 4.5 : 3} className={lost ? 'gone' : 'dot'} />
            )}
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
  .edge,
  .landmarks > * {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
    stroke-linecap: round;
    pointer-events: none;
  }
  .edge {
    stroke-width: 3.2;
  }
  .landmarks > .badge {
    fill: var(--ink);
    stroke: none;
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
    stroke-width: 7;
    stroke-linecap: round;
  }
  .dot {
    fill: var(--ink);
  }
  .gone {
    fill: var(--ground);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .rod text {
    font: 600 13px var(--slab);
    fill: var(--ink);
    text-anchor: middle;
    dominant-baseline: central;
  }
`
