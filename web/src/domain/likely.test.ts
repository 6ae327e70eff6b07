import { describe, expect, it } from 'vitest'
import { likelyBeside, likelyCount, likelyDepth, likelyDiameter, likelyPitch, unlikely } from './likely'
import { numberTyped } from './numbers'

// Ranges are common practice, no source; 1 in = 25.4 mm exactly (ISO 31-1).
const tom = likelyDiameter('rack-tom', 'rack tom', 'in')
const inMm = likelyDiameter('rack-tom', 'rack tom', 'mm')

describe('a typed figure', () => {
  it.each([
    ['14', 14],
    [' 5 1/2 ', 5.5],
    ['1/2', 0.5],
    ['14,5', 14.5],
    ['356 mm', 356],
    ['A3', null],
    ['', null],
    ['14 15', null],
  ])('%s is read', (typed, value) => expect(numberTyped(typed)).toBe(value))
})

describe('a figure that can hardly be', () => {
  it.each([
    [tom, '130', '13'],
    [tom, '1.3', '13'],
    [tom, '330', '330 mm'],
    [tom, '3300 mm', '330 mm'],
    [tom, '31', '15.5'],
    [inMm, '13', '13 in'],
    [inMm, '33', '330'],
    [inMm, '99999', null],
    [likelyDepth('snare', 'snare', 'in'), '55', '5.5'],
    [likelyPitch('bass', 'bass drum'), '855', '85.5'],
    [likelyBeside(91), '912', '91.2'],
    [likelyBeside(91), '45.2', '90.4'],
    [likelyCount(24), '240', '24'],
    [likelyCount(24), '2', '20'],
  ])('is asked about, with what was perhaps meant', (likely, typed, perhaps) =>
    expect(unlikely(typed, likely)?.perhaps).toBe(perhaps),
  )

  it.each([
    [tom, '13'],
    [tom, '330 mm'],
    [tom, ''],
    [inMm, '13 in'],
    [inMm, '330'],
    [likelyBeside(91), 'F2 +5'],
    [likelyBeside(91), '120'],
    [likelyCount(3), '0'],
    [likelyCount(3), '20'],
  ])('is not asked about when it can be', (likely, typed) => expect(unlikely(typed, likely)).toBeNull())

  it('says what it is held against', () =>
    expect(unlikely('140', tom)?.words).toBe('140? A rack tom is usually 6 to 16 in across.'))
})
