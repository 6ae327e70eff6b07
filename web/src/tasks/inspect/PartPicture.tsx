import styled from 'styled-components'
import type { Mark, Part, Tick, WalkDrum } from './log/fold'
import { Strokes } from './Strokes'

interface Props {
  drum: WalkDrum
  part: Exclude<Part, 'batter' | 'resonant'>
  marks: readonly Mark[]
  known: readonly Mark[]
  inHand: string | null
  tickOf: (finding: string) => Tick | undefined
}

type Anchor = readonly [x: number, y: number]

/** Where on each picture the marks of a place gather. */
const ANCHORS: Record<string, Anchor> = {
  wires: [0, -0.14],
  strainer: [-0.78, -0.1],
  shell: [0, 0.1],
  inside: [0.42, -0.28],
  any: [-0.44, -0.26],
  hardware: [-0.4, 0.62],
  stand: [0.62, 0.35],
  rope: [0, 0.1],
}
const R = 92

/** Marks of one place side by side, so that each is seen. */
function placed(
  marks: readonly Mark[],
  tickOf: Props['tickOf'],
): (Mark & { spot: { x: number; y: number } })[] {
  const counted = new Map<string, number>()
  return marks.map((mark) => {
    const where = tickOf(mark.finding)?.where ?? 'hardware'
    const n = counted.get(where) ?? 0
    counted.set(where, n + 1)
    const [x, y] = ANCHORS[where] ?? [0, 0]
    return { ...mark, spot: { x: x + n * 0.17, y: -y } }
  })
}

function Wires() {
  return (
    <>
      <circle r={62} className="hoop" />
      <path d="M-58 -15 v30 M58 -15 v30" className="plate" />
      {Array.from({ length: 7 }, (_, n) => (
        <path key={n} d={`M-56 ${-12 + n * 4} H56`} className="faint" />
      ))}
      <path d="M-58 0 H-76 M58 0 H76" className="ink" />
      <rect x={-94} y={-14} width={18} height={28} className="box" />
      <rect x={76} y={-14} width={18} height={28} className="box" />
      <text x={-85} y={30}>
        strainer
      </text>
      <text x={85} y={30}>
        butt
      </text>
    </>
  )
}

function Shell({ rods }: { rods: number }) {
  const half = Math.max(2, Math.ceil(rods / 2))
  return (
    <>
      <rect x={-84} y={-44} width={168} height={88} className="box" />
      <path d="M-90 -44 H90 M-90 44 H90" className="hoop" />
      {rods
        ? Array.from({ length: half }, (_, n) => {
            const x = -70 + (140 * n) / (half - 1)
            return <path key={n} d={`M${x} -30 v18 M${x} 12 v18`} className="plate" />
          })
        : null}
      <circle cx={34} r={4} className="ink" />
    </>
  )
}

function Hardware({ kind }: { kind: WalkDrum['kind'] }) {
  const legs = kind === 'floor-tom'
  const spurs = kind === 'bass' || kind === 'marching-bass'
  const rope = kind === 'rope-bass'
  return (
    <>
      <rect x={-62} y={-58} width={124} height={88} className="box" />
      <path d="M-66 -58 H66 M-66 30 H66" className="hoop" />
      {rope ? <path d="M-58 -54 L-40 26 L-20 -54 L0 26 L20 -54 L40 26 L58 -54" className="faint" /> : null}
      {legs ? <path d="M-66 -20 V78 M66 -20 V78 M0 30 V78" className="plate" /> : null}
      {spurs ? <path d="M-58 20 L-84 76 M58 20 L84 76" className="plate" /> : null}
      {!legs && !spurs && !rope ? <path d="M62 -14 H86 M86 -34 V60" className="ink" /> : null}
    </>
  )
}

/** Wires, shell and hardware as plain pictures, with what was seen marked where it belongs. */
export function PartPicture({ drum, part, marks, known, inHand, tickOf }: Props) {
  return (
    <Drawing viewBox="-108 -92 216 184" role="img" aria-label={part}>
      {part === 'wires' ? <Wires /> : null}
      {part === 'shell' ? <Shell rods={drum.rods_batter} /> : null}
      {part === 'hardware' ? <Hardware kind={drum.kind} /> : null}
      {placed([...known, ...marks], tickOf).map((mark) => (
        <Strokes
          key={mark.event}
          spot={mark.spot}
          radius={R}
          degree={mark.degree}
          state={
            mark.event === inHand
              ? 'hand'
              : marks.some((each) => each.event === mark.event)
                ? 'seen'
                : 'known'
          }
        />
      ))}
    </Drawing>
  )
}

const Drawing = styled.svg`
  display: block;
  width: 100%;
  max-width: 460px;
  margin: 0 auto;
  .hoop {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2.6;
  }
  .box {
    fill: var(--lifted);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .plate {
    fill: none;
    stroke: var(--ink);
    stroke-width: 3.4;
  }
  .ink {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .faint {
    fill: none;
    stroke: var(--rule);
    stroke-width: 1;
  }
  text {
    font: 500 10px var(--text);
    fill: var(--soft);
    text-anchor: middle;
  }
`
