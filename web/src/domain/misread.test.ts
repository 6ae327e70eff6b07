import { describe, expect, it } from 'vitest'
import { misread, misreadWords } from './misread'

/** The same cases as core/tests/rods/test_misread.py: the device asks what the core asks. */
const asked = (values: Record<number, number>, wanted: number | null = null, sure: number[] = []) =>
  misread(new Map(Object.entries(values).map(([rod, value]) => [Number(rod), value])), {
    wanted,
    foretold: new Map(),
    power: 1,
    sure: new Set(sure),
  })

describe('readings that cannot be', () => {
  it('are those a point, an octave or a wild slip away from their neighbours', () => {
    expect(asked({ 1: 912, 2: 91, 3: 91.4, 4: 90.8 })).toMatchObject([{ rod: 1, perhaps: 91.2 }])
    expect(asked({ 1: 91, 2: 912, 3: 45.2, 4: 91, 5: 90 })).toMatchObject([
      { rod: 2, perhaps: 91.2 },
      { rod: 3, perhaps: 90.4 },
    ])
    expect(asked({ 1: 130, 2: 91, 3: 92, 4: 80 })).toMatchObject([{ rod: 1, perhaps: null }])
  })

  it('are not the plainly uneven ones, nor those somebody said are so', () => {
    expect(asked({ 1: 70, 2: 91, 3: 92, 4: 80 }, 91)).toEqual([])
    expect(asked({ 1: 912, 2: 91, 3: 91.4, 4: 90.8 }, 91, [1])).toEqual([])
    expect(asked({ 1: 30, 2: 31, 3: 33 }, 91)).toEqual([]) // it still comes up from its first tone
  })

  it('of two camps are those that cannot be where the head is wanted', () => {
    const two = { 1: 45, 2: 45, 3: 45, 4: 91, 5: 90, 6: 91 }
    expect(asked(two, 90).map((each) => each.rod)).toEqual([1, 2, 3])
  })

  it('are asked about in plain words', () => {
    const [one] = asked({ 1: 912 }, 91)
    expect(one && misreadWords(one)).toBe('912? This head is wanted near 91.')
  })
})
