const FILM = 'M-104 0 C-70 0 -64 10 -40 10 H40 C64 10 70 0 104 0'

/** Seen along the bed: how the wires lie to the film. */
function Look({ y, gap, tilt, name }: { y: number; gap: number; tilt: number; name: string }) {
  return (
    <g transform={`translate(0 ${y})`}>
      <path d={FILM} className="firm" />
      <g transform={`translate(0 ${16 + gap}) rotate(${tilt})`}>
        {[-30, -22, -14, -6, 2, 10, 18, 26].map((x) => (
          <circle key={x} cx={x + 2} cy={0} r={3} className="full" />
        ))}
        <path d="M-40 6 H40" className="firm" />
      </g>
      <text x={0} y={-14}>
        {name}
      </text>
    </g>
  )
}

export function Level() {
  return (
    <>
      <Look y={-46} gap={12} tilt={0} name="level: the same gap on both sides" />
      <Look y={48} gap={14} tilt={7} name="one side hangs: clamp it again" />
    </>
  )
}

export function OnOff() {
  return (
    <>
      <Look y={-46} gap={0} tilt={0} name="lever on: against the head, some wire" />
      <Look y={48} gap={18} tilt={0} name="lever off: none" />
    </>
  )
}
