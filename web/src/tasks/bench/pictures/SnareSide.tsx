import type { Head } from '../log/types'
import { arc, bedAxis, polar, rodAngle } from './geometry'

export type SnareFocus = 'gate' | 'wires-free' | 'knob' | 'strainer' | 'butt' | 'bed-rods'

interface Props {
  head: Head
  badge: string
  focus: SnareFocus
}

const R = 78
const GATE = 13
const STRANDS = [-18, -13.5, -9, -4.5, 0, 4.5, 9, 13.5, 18]

/** The snare side from above, turned as this drum lies: badge at the top, strainer and butt plate where its bed runs. */
export function SnareSide({ head, badge, focus }: Props) {
  const axis = bedAxis(head, badge)
  const on = (...names: SnareFocus[]) => (names.includes(focus) ? 'now' : undefined)
  const wires = focus !== 'gate'
  const free = focus === 'wires-free'
  return (
    <>
      {badge === 'none' ? null : <path d="M-7 -116 h14 l-7 10 z" className="full" />}
      <Rods head={head} badge={badge} beside={focus === 'bed-rods'} />
      <g transform={`rotate(${axis})`}>
        <path d={arc(GATE, 180 - GATE, R)} className="firm" />
        <path d={arc(180 + GATE, 360 - GATE, R)} className="firm" />
        <path
          d={`M-24 ${-R + 14} V${R - 14} M24 ${-R + 14} V${R - 14}`}
          className={focus === 'bed-rods' ? 'firm dots' : 'thin'}
        />
        {focus === 'gate' ? <path d={`M0 ${-R - 12} V${R + 12}`} className="now dots" /> : null}
        {wires ? (
          <g transform={free ? 'translate(0 -34)' : focus === 'strainer' ? 'translate(0 6)' : ''}>
            {STRANDS.map((x) => (
              <path key={x} d={`M${x} -44 V44`} className={free ? 'thin' : undefined} />
            ))}
            <path d="M-22 -44 H22 M-22 44 H22" className={on('butt', 'strainer', 'wires-free') ?? 'firm'} />
            {free ? null : <path d={`M-9 -44 V${-R - 6} M9 -44 V${-R - 6}`} className={on('strainer')} />}
            {free || focus === 'strainer' ? null : (
              <path d={`M-9 44 V${R + 6} M9 44 V${R + 6}`} className={on('butt')} />
            )}
          </g>
        ) : null}
        <rect
          x={-17}
          y={-R - 22}
          width={34}
          height={16}
          className={`paper ${on('knob', 'strainer') ?? 'firm'}`}
        />
        <circle cx={0} cy={-R - 28} r={5} className={`paper ${on('knob') ?? ''}`} />
        <rect
          x={-15}
          y={R + 6}
          width={30}
          height={11}
          className={`paper ${on('butt', 'wires-free') ?? 'firm'}`}
        />
        {focus === 'butt' ? <path d={`M0 ${R + 20} v18 m-6 -7 l6 7 l6 -7`} className="firm" /> : null}
        {free ? <path d="M34 40 V-20 m-6 7 l6 -7 l6 7" className="firm" /> : null}
        {focus === 'knob' ? <path d={`M10 ${-R - 40} a12 12 0 1 0 6 10`} className="firm" /> : null}
      </g>
      <Named axis={axis} below={focus === 'butt' || focus === 'knob' ? 24 : 0} />
    </>
  )
}

/** Below the line where an arrow or a turn is drawn on it. */
function Named({ axis, below }: { axis: number; below: number }) {
  const [sx, sy] = polar(axis, R + 66)
  const [bx, by] = polar(axis + 180, R + 62)
  return (
    <>
      <text x={sx} y={sy + below}>
        strainer
      </text>
      <text x={bx} y={by + below}>
        butt plate
      </text>
    </>
  )
}

function Rods({ head, badge, beside }: { head: Head; badge: string; beside: boolean }) {
  return Array.from({ length: head.rods }, (_, n) => n + 1).map((rod) => {
    const angle = rodAngle(rod, head.rods, badge)
    const [x1, y1] = polar(angle, R - 5)
    const [x2, y2] = polar(angle, R + 6)
    const [tx, ty] = polar(angle, R + 17)
    const bed = beside && head.beside_bed.includes(rod)
    return (
      <g key={rod}>
        <line x1={x1} y1={y1} x2={x2} y2={y2} className={bed ? 'now' : undefined} />
        <text x={tx} y={ty} className={`rod ${bed ? 'strong' : ''}`}>
          {rod}
        </text>
      </g>
    )
  })
}
