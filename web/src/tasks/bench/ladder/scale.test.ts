import { describe, expect, it } from 'vitest'
import { ofPair } from './scale'

const pair = { lower_hz: 196, upper_hz: 204, axis_deg: 30 }

describe('what of the head’s pair a reading is', () => {
  it.each([
    [196.3, 'lower'],
    [203.8, 'upper'],
    [200, 'blend'],
    [198, 'blend'],
  ])('%d Hz is %s', (hz, what) => {
    expect(ofPair(hz, pair)).toBe(what)
  })

  it('is not said where no pair is known, or nothing was read', () => {
    expect(ofPair(200, null)).toBe('')
    expect(ofPair(null, pair)).toBe('')
    expect(ofPair(undefined, pair)).toBe('')
  })
})
