import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { bench, lap, mark, plan, read, rod } from '../tests/builders'
import { Ladder } from './Ladder'
import { endOf, reachCents, rulerOf } from './scale'

afterEach(cleanup)

const uneven = lap(null, {
  plan: plan(),
  rods: [read(1, 198, -17), read(2, 202, 17), read(3, 198, -17), read(4, 200, 0)],
})
const beams = (container: HTMLElement) =>
  [...container.querySelectorAll('line.now')].map((line) =>
    ['y1', 'y2'].map((y) => Number(line.getAttribute(y)) - 50),
  )

describe('the pair ladder', () => {
  it('has one rung a facing pair in working order', () => {
    render(<Ladder bench={bench([])} lap={uneven} rod={null} />)
    const rungs = within(screen.getByRole('list')).getAllByRole('listitem')
    expect(rungs).toHaveLength(2)
    expect(rungs[0]?.textContent).toContain('198.0')
  })

  it('hangs a low pair low and tilts a pair that fights', () => {
    const { container } = render(<Ladder bench={bench([])} lap={uneven} rod={null} />)
    const [low, tilted] = beams(container)
    expect(low?.every((y) => y > 0)).toBe(true) // below the line
    expect(low?.[0]).toBeCloseTo(low?.[1] ?? 0)
    expect(tilted?.[0]).toBeLessThan(0) // rod 2 is sharp: above
    expect(tilted?.[1]).toBeCloseTo(0) // rod 4 lies on its line
  })

  it('lays a head in tune level on its lines', () => {
    const even = lap(null, { rods: [1, 2, 3, 4].map((n) => read(n, 200, 0)) })
    const { container } = render(<Ladder bench={bench([])} lap={even} rod={null} />)
    for (const ends of beams(container)) for (const y of ends) expect(y).toBeCloseTo(0)
  })

  it('tilts while one rod of a pair is turned and levels when both are', () => {
    const turned = (n: number) => rod(n, { owed_32: 16, turned: { ...mark(), turns_32: 16 } })
    const half = lap(16, {
      rods: [turned(1), rod(2, { owed_32: 16 }), rod(3, { owed_32: 16 }), rod(4, { owed_32: 16 })],
    })
    const { container, rerender } = render(<Ladder bench={bench([])} lap={half} rod={3} />)
    expect(beams(container)[0]?.[0]).toBeLessThan(0)
    expect(beams(container)[0]?.[1]).toBe(0)
    rerender(
      <Ladder
        bench={bench([])}
        lap={{ ...half, rods: [turned(1), rod(2, { owed_32: 16 }), turned(3), rod(4, { owed_32: 16 })] }}
        rod={2}
      />,
    )
    expect(beams(container)[0]?.[0]).toBe(beams(container)[0]?.[1])
  })

  it('lifts out the pair in hand', () => {
    const { container } = render(<Ladder bench={bench([])} lap={uneven} rod={4} />)
    expect(container.querySelector('[data-hand]')?.textContent).toContain('200.0')
  })

  it('is red only where turns are owed', () => {
    const owed = lap(null, {
      plan: plan(),
      rods: [
        rod(1, { owed_32: 4 }),
        rod(2, { owed_32: 0 }),
        rod(3, { owed_32: 4, turned: { ...mark(), turns_32: 4 } }),
        rod(4, { owed_32: -2 }),
      ],
    })
    const { container } = render(<Ladder bench={bench([])} lap={owed} rod={1} />)
    expect([...container.querySelectorAll('figure[data-owed]')].map((each) => each.textContent)).toEqual([
      'up 1/8',
      'down 1/16',
    ])
    expect(screen.getByText('up 1/8 ✓')).toBeTruthy()
    expect(screen.getByText('level')).toBeTruthy()
  })

  it('draws a beam with one end for a rod without partner and a hollow end for a lost one', () => {
    const odd = bench([], { of: { rods: 5, lost: [3], pairs: [[1], [2, 3]] } })
    const rods = [read(1, 200, 0), read(2, 202, 17)]
    const { container } = render(<Ladder bench={odd} lap={lap(null, { rods })} rod={null} />)
    expect(screen.getByText('missing')).toBeTruthy()
    expect(container.querySelectorAll('line.hollow').length).toBeGreaterThan(0)
    expect(
      [...container.querySelectorAll('line.now')].every((line) => Number(line.getAttribute('x2')) === 50),
    ).toBe(true)
  })

  it('lets a rod be chosen while reading, but not a lost one', () => {
    const chosen = vi.fn()
    const odd = bench([], { of: { lost: [3] } })
    render(
      <Ladder bench={odd} lap={lap(null, { rods: [rod(1), rod(2), rod(4)] })} rod={null} onRod={chosen} />,
    )
    for (const button of screen.getAllByRole('button')) fireEvent.click(button)
    expect(chosen.mock.calls.map(([number]) => number as number).sort()).toEqual([1, 2, 4])
  })
})

describe('its scale', () => {
  it('is one of a few, the same for all pairs, and has a ruler', () => {
    const small = lap(null, { rods: [read(1, 200, 2), read(2, 200, -11)] })
    const large = lap(null, { rods: [read(1, 200, 40), read(2, 200, -85)] })
    expect([reachCents(small), reachCents(large)]).toEqual([20, 100])
    expect([rulerOf(small).cents, rulerOf(large).cents]).toEqual([10, 50])
    const [eleven, eightyFive] = [endOf(small, 2).now ?? 0, endOf(large, 2).now ?? 0]
    expect(eightyFive).toBeGreaterThan(1.4 * eleven) // eleven cents do not look like eighty-five
    render(<Ladder bench={bench([])} lap={large} rod={null} />)
    expect(screen.getByText('50 cents')).toBeTruthy()
  })

  it('marks what lies beyond it, and lets no stray reading flatten the others', () => {
    const stray = lap(null, { rods: [read(1, 200, 8), read(2, 200, -400), read(3, 200, 12)] })
    expect(reachCents(stray)).toBe(20)
    expect([1, 2].map((rod) => endOf(stray, rod).beyond)).toEqual([undefined, 'below'])
  })

  it('has no place for what is not read yet', () => {
    expect(endOf(lap(null), 1).now).toBeNull()
    expect(endOf(lap(null), 9).rod).toBeNull()
  })

  it('shows the interval of the prediction in the same measure', () => {
    const known = lap(null, {
      rods: [
        rod(1, {
          predicted_cents: 0,
          predicted_sd_cents: 17.3,
          reading: read(1, 196, -35).reading,
        }),
      ],
    })
    const end = endOf(known, 1)
    expect(end.predicted).toBeCloseTo(0)
    expect(end.sd).toBeCloseTo((36 / 50) * 17.3, 0) // one percent is 17.3 cents
  })
})
