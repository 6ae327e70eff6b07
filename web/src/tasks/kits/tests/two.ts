import type { Kit, KitDrum, Plan, Wish } from '../useKit'

/** Two toms whose notes lie too near each other, and the plan that parts them. */
export const drum = (tag: string, name: string, batter: number, more: Partial<KitDrum> = {}): KitDrum => ({
  tag,
  name,
  kind: 'rack-tom',
  kind_words: 'rack tom',
  size: '12',
  role: 'tom',
  left_out: '',
  notes: [],
  heads: [
    { side: 'batter', now_hz: batter, now_note: 'G3', lowest_hz: batter / 2, highest_hz: batter * 3 },
    { side: 'resonant', now_hz: batter * 1.1, now_note: 'A3', lowest_hz: batter / 2, highest_hz: batter * 3 },
  ],
  note_hz: batter / 2,
  way_cents: 165,
  way_words: 'resonant 165 cents above the batter',
  ...more,
})
export const WISH: Wish = {
  shape: 'as-it-is',
  step: '',
  tolerance: 10,
  apart: 50,
  stays: [],
  notes: {},
  above: {},
  against: [],
}
export const kit: Kit = {
  id: 4,
  name: 'dune kit',
  occasion: '',
  at: '',
  day: null,
  drums: [drum('A', 'Siskin', 220), drum('B', 'Linnet', 200)],
  a4_hz: 440,
  simulated: true,
  wish: WISH,
}
export const head = (side: 'batter' | 'resonant', hz: number, words: string, job = true) => ({
  side,
  hz,
  note: '',
  cents: job ? -40 : 0,
  turns_32: job ? -4 : 0,
  words,
  job,
})
export const plan: Plan = {
  headline: 'Best there is',
  sum: '',
  notes: [],
  places: [
    {
      tag: 'A',
      note_hz: 110,
      note: 'A2',
      heads: [head('batter', 220, 'stays', false), head('resonant', 242, 'stays', false)],
    },
    {
      tag: 'B',
      note_hz: 95,
      note: 'F♯2',
      heads: [head('batter', 190, 'down 1/8'), head('resonant', 209, 'down 1/8')],
    },
  ],
  steps: [{ upper: 'A', lower: 'B', cents: 254, words: '254 cents', kept: true }],
  crowded: [{ one: 'A', one_hz: 110, other: 'B', other_hz: 109, cents: 16 }],
  turns: 0.25,
  bound: 0.25,
  proved: true,
  impossible: false,
  jobs: 2,
  minutes: 30,
  work: 'another-pitch',
}
