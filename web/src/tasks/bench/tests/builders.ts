import type { Schemas } from '../../../api/client'
import type { Bench, Head, Lap, Rod, Step, StepKind } from '../log/types'

/** Small benches for tests: what matters is said, the rest is plain. */
export const rod = (number: number, more: Partial<Rod> = {}): Rod => ({
  rod: number,
  owed_32: null,
  turned: null,
  reading: null,
  number: '',
  predicted: '',
  predicted_cents: null,
  predicted_sd_cents: null,
  reference: false,
  why: '',
  ...more,
})

export const mark = (event = 'e', by = 'Ines') => ({ event, by, at: '2026-01-01T10:00:00Z' })

export const read = (number: number, hz: number, cents: number | null): Rod =>
  rod(number, {
    reading: {
      ...mark(),
      shown: hz.toFixed(1),
      hz,
      typed: String(hz),
      note: '',
      cents,
      doubtful: false,
      tap: '',
    },
  })

export const lap = (each: number | null, more: Partial<Lap> = {}): Lap => ({
  each_32: each,
  until: '',
  order: [1, 3, 2, 4],
  rods: [1, 2, 3, 4].map((n) => rod(n, { owed_32: each })),
  plan: null,
  wanted_hz: 200,
  compared: '',
  whole: '',
  pair: null,
  centre: null,
  tapped: null,
  ...more,
})

export const pull = (more: Partial<Schemas['PullOut']> = {}): Schemas['PullOut'] => ({
  rods: [1, 2, 3, 4],
  by_pitch: [0.05, -0.05, 0.05, -0.05],
  unheard: [0, 0, 0, 0],
  sd: [0.04, 0.04, 0.04, 0.04],
  told_by: [],
  clear: false,
  words: 'Not shown.',
  ...more,
})

export const plan = (more: Partial<NonNullable<Lap['plan']>> = {}): NonNullable<Lap['plan']> => ({
  ...mark('plan'),
  means: 'pitch',
  unit: 'Hz',
  wanted: 200,
  spread: 6,
  allowed: 2,
  mean: 199,
  predicted_spread: 0.9,
  predicted_mean: 200,
  approach: 'hold',
  rounds_left: 1.2,
  chance_even: 0.8,
  modal: 0.7,
  findings: [],
  pull: pull(),
  clear: false,
  verdict: '6.0 Hz between highest and lowest; up to 2.0 Hz counts as even (common practice, F2).',
  why: 'Lifting 1 and 3 evens the head.',
  too_coarse: '',
  ...more,
})

export const step = (id: string, kind: StepKind, laps: Lap[] = [], more: Partial<Step> = {}): Step => ({
  id,
  title: id,
  kind,
  say: `Say ${id}.`,
  points: [],
  tools: [],
  cautions: [],
  minutes: 30,
  more_pass_32: null,
  side: 'batter',
  down: false,
  again: false,
  looks_at: [],
  resting_until: null,
  done: null,
  laps,
  ...more,
})

export const head = (more: Partial<Head> = {}): Head => ({
  side: 'batter',
  new_head: 'single 10 coated',
  old_head: 'single 10 clear',
  reason: '',
  rods: 4,
  lost: [],
  pairs: [
    [1, 3],
    [2, 4],
  ],
  tapping_order: [1, 2, 3, 4],
  pattern_note: '',
  target_hz: 200,
  target_note: 'G3',
  target_words: '',
  settling_words: '',
  reference: null,
  uneven: '',
  uneven_words: '',
  tally: null,
  ...more,
})

export const bench = (
  steps: Step[],
  { of, ...more }: Partial<Bench> & { of?: Partial<Head> } = {},
): Bench => ({
  id: 'j',
  tag: 'MQ-1',
  name: 'Heron',
  kind: 'floor-tom',
  kind_words: 'floor tom',
  size: '15 × 13 in',
  part: 'batter',
  work: 'new-batter-head',
  title: 'New batter head',
  changes_heads: true,
  state: 'open',
  where: '',
  opened_by: 'Ines',
  opened_at: '2026-01-01T09:00:00Z',
  badge: 'between',
  snare: false,
  pattern: 'star',
  step_32: 2,
  cadence: 'rod',
  slacken_by: 'rod',
  simulated: false,
  other_head: true,
  heads: [head(of)],
  head: head(of),
  means: 'pitch',
  by: { up: 'rod', down: 'rod' },
  found: [],
  steps,
  conflicts: [],
  undo: [],
  notes: [],
  write_on_head: '01 / 2026',
  last_seq: 5,
  ...more,
})
