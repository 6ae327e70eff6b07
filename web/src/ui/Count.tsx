import styled from 'styled-components'

/** Plain strokes for a count of things, closed by fives: days late, months past. Beside its words, so hidden from readers. */
export function Count({ count, owed = false }: { count: number; owed?: boolean }) {
  const shown = Math.min(count, 10)
  const groups = Array.from({ length: Math.ceil(shown / 5) }, (_, n) => Math.min(5, shown - n * 5))
  return (
    <Strokes
      aria-hidden
      data-owed={owed || undefined}
      width={groups.length * 38}
      height={30}
      viewBox={`0 0 ${groups.length * 38} 30`}
    >
      {groups.map((size, g) => (
        <g key={g} transform={`translate(${g * 38} 0)`}>
          {Array.from({ length: Math.min(4, size) }, (_, n) => (
            <line key={n} x1={4 + n * 7.5} x2={2.6 + n * 7.5} y1={4} y2={26} />
          ))}
          {size === 5 ? <line x1={-1} x2={32} y1={21} y2={9} /> : null}
        </g>
      ))}
    </Strokes>
  )
}

const Strokes = styled.svg`
  display: block;
  stroke: var(--ink);
  stroke-width: 2.8;
  stroke-linecap: round;
  overflow: visible;
  &[data-owed] {
    stroke: var(--red);
  }
`
