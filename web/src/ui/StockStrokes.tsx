import styled from 'styled-components'

const MOST = 10

interface Props {
  free: number
  promised: number
  /** More is owed than lies there: all of it is red. */
  short: boolean
}

/** A count in strokes: ink is free, underlined is promised, red is short. Beside its figure, so hidden from readers. */
export function StockStrokes({ free, promised, short }: Props) {
  if (free + promised === 0) return null
  return (
    <Strokes aria-hidden data-short={short || undefined}>
      {free ? <Group count={free} /> : null}
      {promised ? (
        <u>
          <Group count={promised} />
        </u>
      ) : null}
    </Strokes>
  )
}

/** Strokes closed by fives; beyond two fives the rest is a figure. */
function Group({ count }: { count: number }) {
  const drawn = Math.min(count, MOST)
  const fives = Array.from({ length: Math.ceil(drawn / 5) }, (_, n) => Math.min(5, drawn - n * 5))
  const last = fives.at(-1) ?? 0
  const width = (fives.length - 1) * 40 + (last === 5 ? 38 : last * 7.5 + 6)
  return (
    <>
      <svg width={width} height={26} viewBox={`0 0 ${width} 26`}>
        {fives.map((size, five) => (
          <g key={five} transform={`translate(${five * 40 + 2} 0)`}>
            {Array.from({ length: Math.min(4, size) }, (_, n) => (
              <line key={n} x1={3 + n * 7.5} x2={1.6 + n * 7.5} y1={2} y2={23} />
            ))}
            {size === 5 ? <line x1={-2} x2={31} y1={18.5} y2={7} /> : null}
          </g>
        ))}
      </svg>
      {count > MOST ? <b>+{count - MOST}</b> : null}
    </>
  )
}

const Strokes = styled.span`
  display: inline-flex;
  align-items: flex-start;
  gap: 12px;
  u {
    display: inline-flex;
    gap: 8px;
  }
  svg {
    display: block;
    overflow: visible;
    stroke: var(--ink);
    stroke-width: 2.6;
    stroke-linecap: round;
  }
  b {
    font: 500 15px/26px var(--mono);
    letter-spacing: -0.04em;
  }
  u {
    text-decoration: none;
    padding-bottom: 3px;
    border-bottom: 2px solid var(--soft);
  }
  u svg {
    stroke: var(--soft);
  }
  u b {
    color: var(--soft);
  }
  &[data-short] svg {
    stroke: var(--red);
  }
  &[data-short] b {
    color: var(--red);
  }
`
