import { describe, expect, it } from 'vitest'
import { cents, centsWords, looksLikePitch } from './pitch'

describe('pitch on screen', () => {
  it('catches slips of the keys and lets every way of writing a pitch through', () => {
    for (const good of ['174.9', '174,9', ' 98 hz', 'F3', 'f#3 +12', 'A♭2 −7', 'B3-5c'])
      expect(looksLikePitch(good)).toBe(true)
    for (const bad of ['', 'abc', '-4', '174.9.1', 'F', '1e3', '12345', '174 9'])
      expect(looksLikePitch(bad)).toBe(false)
  })

  it('writes cents with a true minus and words', () => {
    expect([cents(11.6), cents(-3.2), cents(0.3)]).toEqual(['+12', '−3', '0'])
    expect([centsWords(-21), centsWords(4), centsWords(-0.2)]).toEqual([
      '21 cents low',
      '4 cents high',
      'level',
    ])
  })
})
