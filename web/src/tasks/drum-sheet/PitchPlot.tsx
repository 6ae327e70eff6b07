import { scaleLinear, scaleTime } from 'd3-scale'
import { line } from 'd3-shape'
import { useId, useState } from 'react'
import { shortDate } from '../../domain/dates'
import { cents } from '../../domain/pitch'
import { Soft } from '../../ui/Page'
import type { Schemas } from '../../api/client'
import { PitchFrame } from './PitchFrame'

type Sheet = Schemas['Sheet']

const W = 800
const H = 236
const EDGE = { left: 46, right: 10, top: 26, bottom: 26 }
/** A band this wide round the wanted pitch needs no attention. */
const QUIET_CENTS = 8

type Point = Schemas['PitchOut']

function scales(points: Point[], fittings: Date[], now: Date) {
  const times = [...points.map((p) => new Date(p.at)), ...fittings.slice(-1)]
  const first = Math.min(...times.map(Number))
  const reach = Math.max(30, ...points.map((p) => Math.abs(p.cents) + p.spread_cents / 2)) * 1.08
  return {
    x: scaleTime([new Date(first), now], [EDGE.left, W - EDGE.right]),
    y: scaleLinear([-reach, reach], [H - EDGE.bottom, EDGE.top]),
  }
}

/** Pitch of one side since its first record, in cents from wanted, with a bar for the spread between rods. */
export function PitchPlot({ sheet, side }: { sheet: Sheet; side: string }) {
  const title = useId()
  const [now] = useState(() => new Date())
  const points = sheet.pitches.filter((point) => point.side === side)
  const fitted = sheet.fittings.filter((each) => each.side === side)
  const name = side === 'batter' ? 'Batter' : 'Resonant'
  const first = points[0]
  if (!first)
    return (
      <PitchFrame>
        <figcaption>
          <h2>{name} pitch</h2>
        </figcaption>
        <Soft>No reading yet. Its first round on the bench draws the first point.</Soft>
      </PitchFrame>
    )
  const { x, y } = scales(
    points,
    fitted.map((each) => new Date(each.at)),
    now,
  )
  const marks = fitted.filter((each) => x(new Date(each.at)) >= EDGE.left - 1)
  const path = line<Point>(
    (p) => x(new Date(p.at)),
    (p) => y(p.cents),
  )
  // A head's line ends where the next head begins.
  const starts = [...marks.map((m) => new Date(m.at).getTime() - 3_600_000), Infinity]
  const runs = [-Infinity, ...starts].map((from, n) =>
    points.filter((p) => Number(new Date(p.at)) >= from && Number(new Date(p.at)) < (starts[n] ?? Infinity)),
  )
  return (
    <PitchFrame aria-labelledby={title}>
      <figcaption id={title}>
        <h2>
          {name} pitch since {shortDate(new Date(first.at))}
        </h2>
        <Soft>cents from wanted; thick bar: spread between rods</Soft>
      </figcaption>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        role="img"
        aria-label={`${points.length} rounds; the last one ${cents(points.at(-1)?.cents ?? 0)} cents from wanted`}
      >
        <rect
          x={EDGE.left}
          width={W - EDGE.left - EDGE.right}
          y={y(QUIET_CENTS)}
          height={y(-QUIET_CENTS) - y(QUIET_CENTS)}
          fill="var(--lifted)"
        />
        <line x1={EDGE.left} x2={W - EDGE.right} y1={y(0)} y2={y(0)} className="wanted" />
        {y.ticks(5).map((tick) => (
          <text key={tick} x={EDGE.left - 8} y={y(tick)} className="scale">
            {cents(tick)}
          </text>
        ))}
        {x.ticks(6).map((tick) => (
          <text key={Number(tick)} x={x(tick)} y={H - 5} className="date">
            {tick.toLocaleDateString('en-GB', { month: 'short', year: '2-digit' })}
          </text>
        ))}
        {marks.map((mark, n) => {
          const at = x(new Date(mark.at))
          const room = (x(new Date(marks[n + 1]?.at ?? now)) - at) / 7
          return (
            <g key={mark.at}>
              <line x1={at} x2={at} y1={EDGE.top - 12} y2={H - EDGE.bottom} className="fitted" />
              <text x={at + 5} y={EDGE.top - 8} className="head">
                {mark.head.length > room
                  ? mark.head.slice(0, Math.max(0, Math.floor(room) - 1)) + (room > 4 ? '…' : '')
                  : mark.head}
              </text>
            </g>
          )
        })}
        {runs.map((run, n) => (
          <path key={n} d={path(run) ?? ''} className="pitch" />
        ))}
        {points.map((p) => (
          <line
            key={p.at}
            x1={x(new Date(p.at))}
            x2={x(new Date(p.at))}
            y1={y(p.cents - p.spread_cents / 2)}
            y2={y(p.cents + p.spread_cents / 2)}
            className="spread"
          />
        ))}
      </svg>
    </PitchFrame>
  )
}
