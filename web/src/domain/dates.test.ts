import { describe, expect, it } from 'vitest'
import { daysBetween, elapsed, soon, span } from './dates'

const now = new Date(2026, 4, 13, 10, 0)

describe('dates', () => {
  it('count calendar days, not spans of 24 hours', () => {
    expect(daysBetween(new Date(2026, 4, 12, 23, 59), now)).toBe(1)
    expect(daysBetween(now, new Date(2026, 4, 13, 0, 1))).toBe(0)
  })

  it('say when something comes', () => {
    expect(soon(new Date(2026, 4, 13, 15, 40), now)).toBe('15:40')
    expect(soon(new Date(2026, 4, 14, 9, 0), now)).toBe('tomorrow 09:00')
    expect(soon(new Date(2026, 4, 16, 9, 0), now)).toBe('Saturday')
  })

  it('say how long', () => {
    expect([span(38), span(130), span(120), span(4000)]).toEqual(['38 min', '2 h 10', '2 h', '3 days'])
    expect(elapsed(1_300_000)).toBe('0:21:40')
  })
})
