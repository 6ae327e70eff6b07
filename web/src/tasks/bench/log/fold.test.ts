import { describe, expect, it } from 'vitest'
import type { Entry } from '../../../api/outbox'
import { fold } from './fold'
import type { Answer, Bench } from './types'

const head = {
  ...{
    side: 'batter',
    new_head: '',
    old_head: '',
    reason: '',
    rods: 4,
    lost: [],
    beside_bed: [],
    beside_port: [],
  },
  ...{ pairs: [], tapping_order: [1, 2, 3, 4], turning_order: [1, 3, 2, 4], pattern_note: '', shelf: '' },
  ...{ left: null, above_cents: 0, target_words: '', settling_words: '' },
}
const step = {
  id: 'clear',
  kind: 'clear',
  when: true,
  side: 'batter',
  passes: [],
  asks: [],
  recalls: [],
  why: '',
  points: [],
  tools: [],
}
const figures = {
  readings: [],
  plans: [],
  rounds: [],
  pitches: [],
  uneven: [],
  told: [],
  planned_taps: [],
  last_taps: [],
}

/** A job that is being cleared, with these entries in the server’s log. */
function job(bodies: Record<string, unknown>[], own: Record<string, unknown>[] = []): Bench {
  const log = bodies.map((body, n) => ({
    ...{ id: `e${n}`, by: 'Ines', at: '2026-12-01T10:00:00Z', device: 'tablet', standing: 'applied' },
    ...{ body, words: `entry ${n}` },
  }))
  const answer = {
    id: 'j',
    plan: [step],
    heads: [head],
    means: 'pitch',
    log,
    figures,
    conflicts: [],
    anew: [],
  }
  const entries = own.map((body, n) => ({
    ...{ log: 'bench', job: 'j', state: 'waiting' },
    event: { id: `own${n}`, made_at: '2026-12-01T10:01:00Z', device: 'tablet', body },
  }))
  return fold(answer as unknown as Answer, entries as unknown as Entry[])
}

describe('a log', () => {
  it('with an entry of a kind this page does not know, a newer server’s, is shown with it and not broken by it', () => {
    const bench = job([
      { kind: 'weighed', grams: 12 },
      { kind: 'note', text: 'as found' },
    ])
    expect(bench.notes).toEqual(['as found'])
    expect(bench.undo.map((each) => each.words)).toEqual(['entry 1', 'entry 0'])
  })

  it.each([
    ['114,2', 114.2],
    ['114.2 Hz', 114.2],
    ['A2', null],
  ])('shows the middle typed as %s before the server has read it', (typed, hz) => {
    const bench = job([{ kind: 'centre', step: 'clear', lap: 0, typed }])
    expect(bench.steps[0]?.laps[0]?.centre).toMatchObject({ typed, hz })
  })

  it('has the turns asked for once its own entry is not told yet', () => {
    const asked = { kind: 'plan', step: 'clear', lap: 0 }
    const waits = (bench: Bench) => bench.steps[0]?.laps[0]?.asked
    expect(waits(job([], [asked]))).toBe(true)
    expect(waits(job([asked]))).toBe(false)
  })
})
