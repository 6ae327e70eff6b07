import type { ReactNode } from 'react'
import styled from 'styled-components'
import { strokesOf, turnWords, type Stroke, type Turns32 } from '../domain/turns'

interface Props {
  turns: Turns32
  /** Red while owed, ink when done. */
  owed?: boolean
  /** Height of an upright in pixels. */
  size?: number
  /** Where the words stand; 'said' when they are written large beside it already. */
  words?: 'below' | 'beside' | 'said'
  /** Added after the words, such as a tick. */
  after?: string
}

const WIDTH: Record<Stroke, number> = {
  full: 1.75,
  quarter: 0.42,
  eighth: 0.38,
  sixteenth: 0.3,
  thirtysecond: 0.3,
}

/** One stroke at x, drawn upward from the line at y = 0 in units of `h`. */
function draw(stroke: Stroke, x: number, h: number, key: string): ReactNode {
  const upright = (at: number, tall: number, id = '') => (
    <line key={key + id} x1={at} y1={-h * 0.12} x2={at + h * 0.07 * tall} y2={-h * (0.12 + 0.88 * tall)} />
  )
  switch (stroke) {
    case 'full':
      return (
        <g key={key}>
          {[0, 1, 2, 3].map((n) => upright(x + n * h * 0.36, 1, String(n)))}
          <line x1={x - h * 0.14} y1={-h * 0.36} x2={x + h * 1.3} y2={-h * 0.8} />
        </g>
      )
    case 'quarter':
      return upright(x, 1)
    case 'eighth':
      return upright(x, 0.48)
    case 'sixteenth':
      return (
        <circle key={key} cx={x + h * 0.03} cy={-h * 0.25} r={h * 0.09} fill="currentColor" stroke="none" />
      )
    case 'thirtysecond':
      return <circle key={key} cx={x + h * 0.03} cy={-h * 0.27} r={h * 0.09} strokeWidth={h * 0.06} />
  }
}

/** Our sign for turns: strokes above the line tighten, below it slacken. Never without the words. */
export function Tally({ turns, owed = false, size = 28, words = 'below', after = '' }: Props) {
  const strokes = strokesOf(turns)
  const start = size * 0.32
  const xs = strokes.map(
    (_, n) => start + strokes.slice(0, n).reduce((sum, each) => sum + WIDTH[each] * size, 0),
  )
  const end = xs.length ? (xs.at(-1) ?? 0) + WIDTH[strokes.at(-1) ?? 'quarter'] * size : size
  const width = Math.max(end + size * 0.1, size * 1.3)
  const up = turns >= 0
  const height = size * 1.14
  return (
    <Figure data-owed={owed || undefined} data-words={words}>
      <svg
        width={width}
        height={height}
        viewBox={`0 ${up ? -size * 1.06 : -size * 0.08} ${width} ${height}`}
        aria-hidden
      >
        <line x1={0} x2={width} y1={0} y2={0} stroke="var(--soft)" strokeWidth={1.4} />
        <g
          transform={up ? undefined : 'scale(1,-1)'}
          fill="none"
          stroke="currentColor"
          strokeWidth={Math.max(2.2, size * 0.115)}
          strokeLinecap="round"
        >
          {strokes.map((stroke, n) => draw(stroke, xs[n] ?? 0, size, `${stroke}${n}`))}
        </g>
      </svg>
      {words === 'said' ? null : (
        <figcaption>
          {turnWords(turns)}
          {after}
        </figcaption>
      )}
    </Figure>
  )
}

const Figure = styled.figure`
  display: inline-flex;
  flex-direction: column;
  gap: 4px;
  color: var(--ink);
  &[data-words='beside'] {
    flex-direction: row;
    align-items: flex-end;
    gap: 8px;
  }
  &[data-owed] {
    color: var(--red);
    font-weight: 650;
  }
  svg {
    display: block;
    overflow: visible;
  }
  figcaption {
    font-size: 13px;
    line-height: 1.2;
    white-space: nowrap;
  }
`
