/** A square code (QR), rows of 0 and 1: dark on light whatever the theme, with the four modules of quiet around it that readers need. */
export function SquareCode({ rows }: { rows: string[] }) {
  const size = rows.length + 8
  const dark = rows.flatMap((row, y) =>
    [...row].flatMap((module, x) => (module === '1' ? [`M${x + 4} ${y + 4}h1v1h-1z`] : [])),
  )
  return (
    <svg
      width={200}
      height={200}
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label="Square code for the app"
    >
      <rect width={size} height={size} fill="#fff" />
      <path d={dark.join('')} fill="#000" shapeRendering="crispEdges" />
    </svg>
  )
}
