/** The mark: four strokes and a bar, red while anything is owed in this workshop. */
export function Mark({ owed, width = 44 }: { owed: boolean; width?: number }) {
  return (
    <svg
      width={width}
      height={(width * 36) / 46}
      viewBox="0 0 46 36"
      role="img"
      aria-label={owed ? 'Red Tally: something is owed' : 'Red Tally: nothing is owed'}
    >
      <g stroke="var(--ink)" strokeWidth={4} strokeLinecap="round">
        {[9.5, 18.5, 27.5, 36.5].map((x) => (
          <line key={x} x1={x} x2={x - 1.6} y1={4.5} y2={31.5} />
        ))}
      </g>
      <line
        x1={2.5}
        x2={43}
        y1={26.5}
        y2={9}
        stroke={owed ? 'var(--red)' : 'var(--ink)'}
        strokeWidth={4}
        strokeLinecap="round"
      />
    </svg>
  )
}
