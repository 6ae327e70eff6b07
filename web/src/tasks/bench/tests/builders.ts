import type { Bench, Lap, Rod, Step } from '../state/types'

/** Small benches for tests: what matters is said, the rest is plain. */
export const rod = (number: number, more: Partial<Rod> = {}): Rod => ({
  rod: number,
  owed_32: null,
  turned: null,
  reading: null,
  predicted_hz: null,
  predicted_sd_hz: null,
  predicted_cents: null,
  why: '',
  ...more,
})

export const mark = (event = 'e', by = 'Ines') => ({ event, by, at: '2026-01-01T10:00:00Z' })

export const read = (number: number, hz: number, cents: number | null): Rod =>
  rod(number, { reading: { ...mark(), hz, typed: String(hz), note: '', cents } })

export const lap = (each: number | null, more: Partial<Lap> = {}): Lap => ({
  each_32: each,
  order: [1, 3, 2, 4],
  rods: [1, 2, 3, 4].map((n) => rod(n, { owed_32: each })),
  plan: null,
  wanted_hz: 200,
  compared: '',
  ...more,
})

export const plan = (more: Partial<NonNullable<Lap['plan']>> = {}): NonNullable<Lap['plan']> => ({
  ...mark('plan'),
  wanted_hz: 200,
  spread_hz: 6,
  allowed_hz: 2,
  mean_hz: 199,
  predicted_spread_hz: 0.9,
  predicted_mean_hz: 200,
  clear: false,
  verdict: '6.0 Hz between highest and lowest; up to 2.0 Hz counts as even (common practice, F2).',
  why: 'Lifting 1 and 3 evens the head.',
  too_coarse: '',
  ...more,
})

export const step = (id: string, kind: string, laps: Lap[] = [], more: Partial<Step> = {}): Step => ({
  id,
  title: id,
  kind,
  say: `Say ${id}.`,
  points: [],
  cautions: [],
  minutes: 30,
  more_pass_32: null,
  done: null,
  laps,
  ...more,
})

export const bench = (steps: Step[], more: Partial<Bench> = {}): Bench => ({
  id: 'j',
  tag: 'MQ-1',
  name: 'Heron',
  kind: 'floor-tom',
  kind_words: 'floor tom',
  size: '15 × 13 in',
  side: 'batter',
  procedure: 'new-batter-head',
  title: 'New batter head',
  state: 'open',
  where: '',
  new_head: 'single 10 coated',
  old_head: 'single 10 clear',
  reason: '',
  opened_by: 'Ines',
  opened_at: '2026-01-01T09:00:00Z',
  rods: 4,
  lost: [],
  badge: 'between',
  snare: false,
  pairs: [
    [1, 3],
    [2, 4],
  ],
  tapping_order: [1, 2, 3, 4],
  pattern: 'star',
  pattern_note: '',
  step_32: 2,
  target_hz: 200,
  target_note: 'G3',
  resting_until: null,
  steps,
  tally: null,
  conflicts: [],
  undo: [],
  notes: [],
  write_on_head: '01 / 2026',
  last_seq: 5,
  ...more,
})
