import styled from 'styled-components'

interface Ring {
  step_s: number
  ring_db: readonly number[]
  /** Pitch against where it settled, null where it is too faint to tell. */
  cents: readonly (number | null)[]
}

const W = 210
const H = 64
const DEEP_DB = 48
const MOST_CENTS = 60
const SHOWN_S = 0.9

/** One tap over time: how it rings away, and its pitch coming down onto the dotted line where it settles. */
export function RingPicture({ ring, label }: { ring: Ring; label: string }) {
  const shown = Math.min(ring.ring_db.length, Math.ceil(SHOWN_S / ring.step_s))
  const x = (n: number) => (n / Math.max(1, shown - 1)) * W
  const loud = ring.ring_db
    .slice(0, shown)
    .map((db, n) => `${x(n).toFixed(1)},${(H - Math.max(0, 1 + db / DEEP_DB) * (H - 4)).toFixed(1)}`)
  const most = Math.max(MOST_CENTS, ...ring.cents.map((each) => Math.abs(each ?? 0)))
  const course = ring.cents
    .slice(0, shown)
    .map((each, n) =>
      each === null ? null : `${x(n).toFixed(1)},${(H / 2 - (each / most) * (H / 2 - 5)).toFixed(1)}`,
    )
    .filter((each) => each !== null)
  return (
    <Drawing viewBox={`0 0 ${W} ${H}`} width={W} height={H} role="img" aria-label={label}>
      <polygon className="ring" points={`0,${H} ${loud.join(' ')} ${W},${H}`} />
      <line className="line" x1={0} x2={W} y1={H / 2} y2={H / 2} />
      <polyline className="pitch" points={course.join(' ')} />
    </Drawing>
  )
}

interface Partial {
  hz: number
  level_db: number
}

const FROM_RATIO = 0.45 // of what was read
const TO_RATIO = 3.6
const FAINT_DB = 44

/** The family of a tap: every partial a stroke, as tall as it is strong; the one that was read is full and named. */
export function FamilyPicture({ partials, read }: { partials: readonly Partial[]; read: number | null }) {
  const middle = read ?? partials[0]?.hz ?? 1
  const x = (hz: number) =>
    (Math.log(hz / middle / FROM_RATIO) / Math.log(TO_RATIO / FROM_RATIO)) * (W - 12) + 6
  const shown = partials.filter((each) => each.hz > middle * FROM_RATIO && each.hz < middle * TO_RATIO)
  const nearest = read
    ? partials.reduce<Partial | null>(
        (best, each) => (!best || Math.abs(each.hz - read) < Math.abs(best.hz - read) ? each : best),
        null,
      )
    : null
  const said = partials.map((each) => `${each.hz.toFixed(0)}${each === nearest ? ' (read)' : ''}`).join(', ')
  return (
    <Drawing viewBox={`0 0 ${W} ${H}`} width={W} height={H} role="img" aria-label={`Partials at ${said} Hz`}>
      <line className="base" x1={0} x2={W} y1={H - 14} y2={H - 14} />
      {shown.map((each) => (
        <line
          key={each.hz}
          className={each === nearest ? 'read' : 'other'}
          x1={x(each.hz)}
          x2={x(each.hz)}
          y1={H - 14}
          y2={H - 14 - Math.max(0.08, 1 + each.level_db / FAINT_DB) * (H - 20)}
        />
      ))}
      {nearest ? (
        <text x={Math.min(W - 16, Math.max(16, x(nearest.hz)))} y={H - 2} textAnchor="middle">
          {nearest.hz.toFixed(0)} Hz
        </text>
      ) : null}
    </Drawing>
  )
}

const Drawing = styled.svg`
  display: block;
  max-width: 100%;
  overflow: visible;
  .ring {
    fill: var(--faint);
  }
  .line {
    stroke: var(--soft);
    stroke-width: 1;
    stroke-dasharray: 1 4;
    stroke-linecap: round;
  }
  .pitch {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
    stroke-linejoin: round;
  }
  .base {
    stroke: var(--rule);
  }
  .other {
    stroke: var(--soft);
    stroke-width: 2;
  }
  .read {
    stroke: var(--ink);
    stroke-width: 5;
  }
  text {
    font: 12px var(--mono);
    fill: var(--ink);
  }
`
