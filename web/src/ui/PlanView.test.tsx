import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { PlanView } from './PlanView'

afterEach(cleanup)

function where(container: HTMLElement, rod: number): [number, number] {
  const text = [...container.querySelectorAll('g text')].find((each) => each.textContent === String(rod))
  return [Number(text?.getAttribute('x')), Number(text?.getAttribute('y'))]
}

describe('the head from above', () => {
  it('numbers the rods clockwise, the badge midway between the last and the first', () => {
    const { container } = render(<PlanView rods={8} badge="between" label="head" />)
    const [x1, y1] = where(container, 1)
    const [x8, y8] = where(container, 8)
    expect(x1).toBeGreaterThan(0)
    expect(x8).toBeCloseTo(-x1)
    expect(y8).toBeCloseTo(y1)
    expect(y1).toBeLessThan(0)
    expect(where(container, 2)[1]).toBeGreaterThan(y1)
  })

  it('puts rod 1 in line with the badge where the drum has it so', () => {
    const { container } = render(<PlanView rods={6} badge="at-rod" label="head" />)
    expect(where(container, 1)[0]).toBeCloseTo(0)
  })

  it('sets facing rods on one diameter', () => {
    const { container } = render(<PlanView rods={10} badge="between" label="head" />)
    for (let rod = 1; rod <= 5; rod++) {
      const [x, y] = where(container, rod)
      const [fx, fy] = where(container, rod + 5)
      expect([fx, fy]).toEqual([expect.closeTo(-x), expect.closeTo(-y)])
    }
  })

  it('marks the rod in hand, the next one, and a lost one with a hollow end', () => {
    const { container } = render(<PlanView rods={8} badge="none" now={3} next={7} lost={[5]} label="head" />)
    expect(container.querySelector('[data-state=owed] text')?.textContent).toBe('3')
    expect(container.querySelector('[data-state=next] text')?.textContent).toBe('7')
    expect(container.querySelector('[data-lost] circle.gone')).toBeTruthy()
    expect(container.querySelector('.badge')).toBeNull()
  })

  it('says in words what it shows', () => {
    render(<PlanView rods={8} badge="between" label="Head from above: rod 3 is in hand" />)
    expect(screen.getByRole('img', { name: 'Head from above: rod 3 is in hand' })).toBeTruthy()
  })
})
