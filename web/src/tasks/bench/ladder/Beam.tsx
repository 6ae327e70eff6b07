import styled from 'styled-components'
import type { End } from './scale'

interface Props {
  left: End | null
  right: End | null
  pass: boolean
  /** Where the ruler's ticks stand. */
  ticks: readonly number[]
}

interface Ends {
  from: number
  to: number
  /** One end only: the beam stops in the middle. */
  half: 'left' | 'right' | null
}

function ends(left: number | null | undefined, right: number | null | undefined): Ends | null {
  if (typeof left === 'number' && typeof right === 'number') return { from: left, to: right, half: null }
  if (typeof left === 'number') return { from: left, to: left, half: 'left' }
  if (typeof right === 'number') return { from: right, to: right, half: 'right' }
  return null
}

function Stroke({ at, name }: { at: Ends; name: string }) {
  const [x1, x2] = [at.half === 'right' ? 50 : 2, at.half === 'left' ? 50 : 98]
  return <line className={name} x1={x1} y1={50 + at.from} x2={x2} y2={50 + at.to} />
}

/** A spirit level: the dotted line is the wanted pitch, the beam where the pair stands, the dashes where it should come to. */
export function Beam({ left, right, pass, ticks }: Props) {
  const now = ends(left?.now, right?.now)
  const predicted = ends(left?.predicted, right?.predicted)
  const waits = [left, right].every((end) => !end?.rod || end.waiting)
  const sd = (left?.sd ?? 0) + (right?.sd ?? 0)
  return (
    <Room>
      <Level viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden>
        {predicted && sd > 0 ? (
          <path
            className="interval"
            d={`M2 ${50 + predicted.from - (left?.sd ?? 0)} L98 ${50 + predicted.to - (right?.sd ?? 0)} L98 ${50 + predicted.to + (right?.sd ?? 0)} L2 ${50 + predicted.from + (left?.sd ?? 0)} Z`}
          />
        ) : null}
        {ticks.map((y) => (
          <path key={y} className="tick" d={`M0 ${50 + y} H2.2 M97.8 ${50 + y} H100`} />
        ))}
        <line className="wanted" x1={0} x2={100} y1={50} y2={50} />
        {predicted ? <Stroke at={predicted} name="predicted" /> : null}
        {now ? <Stroke at={now} name={pass ? `now ${waits ? 'waits' : 'pass'}` : 'now'} /> : null}
        {[left, right].map((end, n) =>
          end && end.rod && typeof end.now === 'number' ? null : (
            <line key={n} className="hollow" x1={n ? 96 : 2} x2={n ? 98 : 4} y1={50} y2={50} />
          ),
        )}
      </Level>
      {[left, right].map((end, n) =>
        end?.beyond ? (
          <Beyond key={n} data-side={n ? 'right' : 'left'} data-way={end.beyond}>
            {end.beyond === 'above' ? '▲' : '▼'}
          </Beyond>
        ) : null,
      )}
    </Room>
  )
}

/** The drawing takes whatever room its rung has and never asks for more. */
const Room = styled.div`
  position: relative;
  min-height: 56px;
`
const Level = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  line,
  path {
    vector-effect: non-scaling-stroke;
    stroke-linecap: round;
    fill: none;
  }
  .tick {
    stroke: var(--soft);
    stroke-width: 1;
  }
  .wanted {
    stroke: var(--soft);
    stroke-width: 1.4;
    stroke-dasharray: 0.1 5;
  }
  .now {
    stroke: var(--ink);
    stroke-width: 6.5;
    transition: all 180ms ease-out;
  }
  .pass {
    stroke-width: 4.5;
  }
  .waits {
    stroke: var(--rule);
    stroke-width: 4.5;
  }
  .predicted {
    stroke: var(--ink);
    stroke-width: 1.6;
    stroke-dasharray: 7 5;
  }
  .interval {
    fill: color-mix(in srgb, var(--rule) 55%, transparent);
    stroke: none;
  }
  .hollow {
    stroke: var(--soft);
    stroke-width: 3;
  }
`
/** It goes on beyond the ruler. */
const Beyond = styled.span.attrs({ 'aria-hidden': true })`
  position: absolute;
  font-size: 12px;
  line-height: 1;
  &[data-side='left'] {
    left: 8px;
  }
  &[data-side='right'] {
    right: 8px;
  }
  &[data-way='above'] {
    top: -4px;
  }
  &[data-way='below'] {
    bottom: -4px;
  }
`
