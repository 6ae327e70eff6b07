import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { Bearing, bearingWords } from './Bearing'

afterEach(cleanup)

function where(container: HTMLElement, rod: number): [number, number] {
  const dot = container.querySelector(`circle[data-rod="${rod}"]`)
  return [Number(dot?.getAttribute('cx')), Number(dot?.getAttribute('cy'))]
}

describe('where one stands at the head', () => {
  it('counts rods clockwise, the badge midway between the last and the first', () => {
    const { container } = render(<Bearing rods={8} badge="between" label="head" />)
    const [x1, y1] = where(container, 1)
    const [x8, y8] = where(container, 8)
    expect(x1).toBeGreaterThan(0)
    expect(x8).toBeCloseTo(-x1)
    expect(y8).toBeCloseTo(y1)
    expect(y1).toBeLessThan(0)
    expect(where(container, 2)[1]).toBeGreaterThan(y1)
  })

  it('puts rod 1 in line with the badge where the drum has it so, and facing rods across', () => {
    const { container } = render(<Bearing rods={6} badge="at-rod" label="head" />)
    expect(where(container, 1)[0]).toBeCloseTo(0)
    for (let rod = 1; rod <= 3; rod++) {
      const [x, y] = where(container, rod)
      expect(where(container, rod + 3)).toEqual([expect.closeTo(-x), expect.closeTo(-y)])
    }
  })

  it('draws the rod in hand as a stroke, a lost one hollow, and no numbers and no colour', () => {
    const { container } = render(<Bearing rods={8} badge="none" now={3} lost={[5]} label="head" />)
    expect(container.querySelector('.hand')?.getAttribute('data-rod')).toBe('3')
    expect(container.querySelector('.gone')?.getAttribute('data-rod')).toBe('5')
    expect(container.querySelector('.badge')).toBeNull()
    expect(container.querySelector('text')).toBeNull()
  })

  it('says in words where the rod is, from the nearer side of the badge', () => {
    const said = (rods: number, badge: string) =>
      Array.from({ length: rods }, (_, n) => bearingWords(n + 1, rods, badge))
    expect(said(6, 'between')).toEqual([
      '1st right of the badge',
      '2nd right of the badge',
      '3rd right of the badge',
      '3rd left of the badge',
      '2nd left of the badge',
      '1st left of the badge',
    ])
    expect(said(4, 'at-rod')).toEqual([
      'at the badge',
      '1st right of the badge',
      'across from the badge',
      '1st left of the badge',
    ])
    expect(bearingWords(3, 8, 'none')).toBe('2nd clockwise from rod 1')
    render(<Bearing rods={8} badge="between" label="Rod 3: 3rd right of the badge" />)
    expect(screen.getByRole('img', { name: /3rd right/ })).toBeTruthy()
  })
})
