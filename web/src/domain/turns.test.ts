import { describe, expect, it } from 'vitest'
import { amountOf, strokesOf, turns32, turnWords } from './turns'

const size = { full: 32, quarter: 8, eighth: 4, sixteenth: 2, thirtysecond: 1 } as const

describe('turns', () => {
  it('are said as at the bench', () => {
    expect(turnWords(turns32(12))).toBe('up 3/8')
    expect(turnWords(turns32(-64))).toBe('down 2')
    expect(turnWords(turns32(48))).toBe('up 1 1/2')
    expect(turnWords(turns32(0))).toBe('level')
  })

  it('have strokes that add up to the amount, whatever it is, largest first', () => {
    for (let count = -160; count <= 160; count++) {
      const strokes = strokesOf(turns32(count)).map((stroke) => size[stroke])
      expect(strokes.reduce((sum: number, each) => sum + each, 0)).toBe(Math.abs(count))
      expect([...strokes].sort((a, b) => b - a)).toEqual(strokes)
    }
  })

  it('reduce their fractions', () => {
    for (let count = 1; count < 32; count++) {
      const [top = 0, bottom = 0] = amountOf(turns32(count)).split('/').map(Number)
      expect(top / bottom).toBeCloseTo(count / 32)
      expect(top % 2 === 0 && bottom % 2 === 0).toBe(false)
    }
  })
})
