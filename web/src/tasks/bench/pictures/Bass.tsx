import type { Head } from '../log/types'
import { arc, polar, rodAngle } from './geometry'

const R = 84

function Round({ head, badge, watched }: { head: Head; badge: string; watched: readonly number[] }) {
  return (
    <>
      <circle r={R} className="firm" />
      <circle r={R - 8} className="thin" />
      {badge === 'none' ? null : <path d="M-7 -116 h14 l-7 10 z" className="full" />}
      {Array.from({ length: head.rods }, (_, n) => n + 1).map((rod) => {
        const angle = rodAngle(rod, head.rods, badge)
        const [x1, y1] = polar(angle, R - 6)
        const [x2, y2] = polar(angle, R + 6)
        const [tx, ty] = polar(angle, R + 17)
        return (
          <g key={rod}>
            <line x1={x1} y1={y1} x2={x2} y2={y2} className={watched.includes(rod) ? 'now' : undefined} />
            <text x={tx} y={ty} className={`rod ${watched.includes(rod) ? 'strong' : ''}`}>
              {rod}
            </text>
          </g>
        )
      })}
    </>
  )
}

interface Props {
  head: Head
  badge: string
}

/** Off the middle, between two rods; beside the rods on record where there are any. */
export function Port({ head, badge }: Props) {
  const beside = head.beside_port
  const angle = beside.length
    ? beside.reduce((sum, rod) => sum + rodAngle(rod, head.rods, badge), 0) / beside.length
    : 135
  const [x, y] = polar(angle, R * 0.52)
  return (
    <>
      <Round head={head} badge={badge} watched={beside} />
      <circle cx={x} cy={y} r={22} className="firm dots" />
      <circle cx={x} cy={y} r={26} className="now" />
      <text x={x} y={y + 4}>
        port
      </text>
    </>
  )
}

export function Patch({ head, badge }: Props) {
  return (
    <>
      <Round head={head} badge={badge} watched={[]} />
      <circle r={15} className="now" />
      <circle r={3} className="full" />
      <path d={arc(168, 192, R + 3)} className="now" />
      <path d={`M0 ${R + 26} V26 m-7 9 l7 -9 l7 9`} className="firm dots" />
      <text x={0} y={R + 26} dx={46}>
        protector
      </text>
    </>
  )
}

/** The bare shell: a strip along the inside, clear of the edge the film lies on. */
export function Foam({ head, badge }: Props) {
  return (
    <>
      <Round head={head} badge={badge} watched={[]} />
      <circle r={R - 20} className="now" />
      <circle r={R - 26} className="thin" />
      <text x={0} y={4}>
        foam
      </text>
    </>
  )
}

/** A palm on the middle, and the wrinkle that shows at a rod. */
export function Wrinkles({ head, badge }: Props) {
  const angle = rodAngle(1, head.rods, badge)
  return (
    <>
      <Round head={head} badge={badge} watched={[1]} />
      <g transform={`rotate(${angle})`}>
        {[-9, 0, 9].map((x) => (
          <path key={x} d={`M${x} ${-R + 10} q5 10 0 20 q-5 10 0 20`} className="firm" />
        ))}
      </g>
      <circle r={19} className="firm dots" />
      <text x={0} y={4}>
        palm
      </text>
    </>
  )
}

export type Muffle = 'muffle-piece' | 'muffle-ring' | 'muffle-towel' | 'muffle-pad'

export function OnTheHead({ head, badge, what }: Props & { what: Muffle }) {
  return (
    <>
      <Round head={head} badge={badge} watched={[]} />
      {what === 'muffle-piece' ? (
        <rect x={40} y={-46} width={22} height={11} className="full" transform="rotate(20 50 -40)" />
      ) : (
        <circle r={R - 18} className="now" />
      )}
    </>
  )
}

/** The drum cut open from the side: what lies in it, and what it touches. */
export function CutOpen({ what }: { what: Muffle }) {
  return (
    <>
      <path d="M-92 -70 V70 M92 -70 V70" className="firm" />
      <path d="M-92 -70 H92 M-92 70 H92" />
      <text x={-92} y={92}>
        batter
      </text>
      <text x={92} y={92}>
        resonant
      </text>
      {what === 'muffle-towel' ? (
        <path d="M-46 66 q14 -26 30 -4 q16 -24 32 -2 q14 -22 30 6" className="now" />
      ) : (
        <path d="M-90 66 V30 q0 -12 14 -12 H76 q14 0 14 12 V66" className="now" />
      )}
    </>
  )
}
