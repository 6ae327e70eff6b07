import { describe, expect, it } from 'vitest'
import type { Body, Entry } from '../../../api/outbox'
import type { Bench } from './types'
import { nextOf } from './next'
import { overlay } from './overlay'
import { bench, lap, plan, rod, step } from '../tests/builders'

let made = 0
const entry = (body: Body, more: Partial<Entry> = {}): Entry => ({
  order: ++made,
  job: 'j',
  user: 'ines',
  event: { id: `e${made}`, device: 'd', seen: 5, made_at: '2026-01-01T10:00:00Z', body },
  state: 'waiting',
  message: '',
  seq: null,
  ...more,
})
const turned = (lapNo: number, number: number, stepId = 'slacken'): Body => ({
  kind: 'turned',
  step: stepId,
  lap: lapNo,
  rod: number,
  turns_32: -64,
})

describe('entries not yet confirmed', () => {
  it('move the bench on without the server', () => {
    const start = bench([step('slacken', 'passes', [lap(-64), lap(-64)])])
    const rods = [1, 3, 2, 4].map((n) => entry(turned(0, n)))
    const next = nextOf(overlay(start, rods))
    expect(next).toMatchObject({ kind: 'turn', lapNo: 1, rod: 1, then: 3 })
    expect(nextOf(start)).toMatchObject({ kind: 'turn', lapNo: 0, rod: 1 }) // what the server said is left as it was
  })

  it('do not count twice once the server has them, and not at all when it refused them', () => {
    const start = bench([step('slacken', 'passes', [lap(-64)])])
    expect(overlay(start, [entry(turned(0, 1), { state: 'sent', seq: 5 })])).toBe(start)
    expect(overlay(start, [entry(turned(0, 1), { state: 'refused' })])).toBe(start)
    expect(nextOf(overlay(start, [entry(turned(0, 1), { state: 'sent', seq: 6 })]))).toMatchObject({ rod: 3 })
  })

  it('can be undone before they were ever sent', () => {
    const first = entry(turned(0, 1))
    const start = bench([step('slacken', 'passes', [lap(-64)])])
    expect(nextOf(overlay(start, [first, entry({ kind: 'undo', event: first.event.id })]))).toMatchObject({
      rod: 1,
    })
  })

  it('open the next round of tapping when the last turn of a planned round is made', () => {
    const planned = lap(null, {
      plan: plan(),
      rods: [rod(1, { owed_32: 2 }), rod(2, { owed_32: 0 }), rod(3, { owed_32: -2 }), rod(4, { owed_32: 0 })],
    })
    const start = bench([step('clear', 'clear', [planned])])
    const after = overlay(start, [entry(turned(0, 1, 'clear')), entry(turned(0, 3, 'clear'))])
    expect(nextOf(after)).toMatchObject({ kind: 'read', lapNo: 1, rod: 1 })
  })

  it('walk readings in tapping order and stop when every rod is read', () => {
    const start = bench([step('clear', 'clear', [lap(null)])])
    const read = (n: number) =>
      entry({ kind: 'reading', lap: 0, rod: n, typed: '200', means: 'pitch', partials: [], tap: '' })
    expect(nextOf(overlay(start, [read(1), read(3)]))).toMatchObject({ kind: 'read', rod: 2 })
    expect(nextOf(overlay(start, [1, 2, 3, 4].map(read)))).toMatchObject({ kind: 'read', rod: null })
  })
})

describe('what is heard', () => {
  const read = (n: number, typed: string) =>
    entry({ kind: 'reading', lap: 0, rod: n, typed, means: 'pitch', partials: [], tap: '' })
  const start = bench([step('clear', 'clear', [lap(null)])])
  const shown = (after: Bench) => after.steps[0]?.laps[0]?.rods.map((each) => each.reading?.typed ?? '')

  it('moves to the rods it belongs to, and what is left without is unread', () => {
    const moves = [
      { rod: 1, real: 1 },
      { rod: 2, real: 1 },
      { rod: 3, real: 2 },
      { rod: 4, real: 3 },
    ]
    const taps = ['200', '201', '202', '203'].map((typed, n) => read(n + 1, typed))
    const after = overlay(start, [...taps, entry({ kind: 'order', lap: 0, moves })])
    expect(shown(after)).toEqual(['201', '202', '203', ''])
    expect(nextOf(after)).toMatchObject({ kind: 'read', rod: 4 })
  })

  it('in the middle is the drum’s note, and no rod is read by it', () => {
    const after = overlay(start, [entry({ kind: 'centre', lap: 0, typed: '114.2' })])
    expect(after.steps[0]?.laps[0]?.centre?.hz).toBe(114.2)
    expect(shown(after)).toEqual(['', '', '', ''])
  })
})

describe('what is next', () => {
  it('is to decide, when a plan has no turn and the head is not clear', () => {
    const none = lap(null, { plan: plan(), rods: [1, 2, 3, 4].map((n) => rod(n, { owed_32: 0 })) })
    expect(nextOf(bench([step('clear', 'clear', [none])])).kind).toBe('stuck')
  })
})
