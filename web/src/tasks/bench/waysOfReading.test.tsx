import { cleanup, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import { PullPicture } from './kinds/clear/PullPicture'
import { pitchSeal, tensionSeal } from './kinds/clear/Seals'
import type { Bench } from './log/types'
import { bench, lap, mark, plan, pull, read, rod, step } from './tests/builders'
import { instruction, key, show } from './tests/show'

afterEach(() => {
  cleanup()
  sessionStorage.clear()
})

const beside = (number: number, shown = '') =>
  rod(number, {
    reference: number === 1,
    reading: shown
      ? {
          ...mark(),
          shown,
          hz: null,
          typed: shown,
          note: '',
          cents: -28,
          doubtful: false,
          tap: '',
          sure: false,
        }
      : null,
  })
const byEar = (...shown: string[]): Bench =>
  bench([step('clear', 'clear', [lap(null, { rods: [1, 2, 3, 4].map((n) => beside(n, shown[n - 2])) })])], {
    means: 'ear',
    of: { reference: 1 },
  })

describe('by ear', () => {
  it('asks how each rod sounds beside the one compared with, and takes the keys 1 to 5', () => {
    const entered = show(byEar())
    expect(instruction()).toContain('beside rod 1')
    expect(instruction()).toContain('2')
    key('2')
    key('0')
    expect(entered).toEqual([
      {
        kind: 'reading',
        step: 'clear',
        lap: 0,
        rod: 2,
        typed: 'lower',
        means: 'ear',
        partials: [],
        tap: '',
        sure: false,
        simulated: false,
      },
      {
        kind: 'reading',
        step: 'clear',
        lap: 0,
        rod: 2,
        typed: 'cant-tell',
        means: 'ear',
        partials: [],
        tap: '',
        sure: false,
        simulated: false,
      },
    ])
  })

  it('takes level with the space bar or the big button', async () => {
    const entered = show(byEar())
    expect(screen.getByTestId('main-action').textContent).toContain('Level with rod 1')
    key(' ')
    await userEvent.click(screen.getByRole('button', { name: /Much higher/ }))
    expect(entered.map((body) => ('typed' in body ? body.typed : ''))).toEqual(['level', 'much-higher'])
  })

  it('needs no reading of the rod compared with, and then asks after the whole head', () => {
    const entered = show(byEar('lower', 'level', 'level'))
    expect(instruction()).toMatch(/every rod is read\s*4$/)
    key('1')
    expect(entered).toEqual([{ kind: 'whole', step: 'clear', lap: 0, judged: 'much-lower' }])
    key(' ')
    expect(entered.at(-1)).toEqual({ kind: 'plan', step: 'clear', lap: 0 })
  })
})

describe('ways of reading', () => {
  it('are all a tap away, from the round in hand on', async () => {
    const entered = show(
      bench([step('clear', 'clear', [lap(null, { rods: [1, 2, 3, 4].map((n) => rod(n)) })])]),
    )
    await userEvent.click(screen.getByRole('button', { name: 'Another way' }))
    await userEvent.click(await screen.findByText('with a film gauge'))
    expect(entered).toEqual([{ kind: 'means', means: 'gauge', reference: null }])
  })

  it('refuse a word where a number belongs', async () => {
    const clear = step('clear', 'clear', [lap(null, { rods: [1, 2, 3, 4].map((n) => rod(n)) })])
    const entered = show(bench([clear], { means: 'gauge' }))
    await userEvent.type(screen.getByLabelText(/Gauge at rod 1/), 'tight{Enter}')
    expect(screen.getByRole('alert').textContent).toContain('above nothing')
    await userEvent.clear(screen.getByLabelText(/Gauge at rod 1/))
    await userEvent.type(screen.getByLabelText(/Gauge at rod 1/), '81,5{Enter}')
    expect(entered).toEqual([
      {
        kind: 'reading',
        step: 'clear',
        lap: 0,
        rod: 1,
        typed: '81,5',
        means: 'gauge',
        partials: [],
        tap: '',
        sure: false,
        simulated: false,
      },
    ])
  })

  it('let a gauge be read beside a clear pitch, rod by rod, and judged', async () => {
    const rods = [1, 2, 3, 4].map((n) => ({ ...read(n, 200, 0), number: n < 4 ? '80' : '' }))
    const cleared = lap(null, { plan: plan({ clear: true }), rods })
    const entered = show(bench([step('clear', 'clear', [cleared])]))
    key('g')
    expect(instruction()).toContain('Stand the gauge at rod4')
    await userEvent.type(screen.getByLabelText(/Gauge at rod 4/), '82{Enter}')
    expect(entered).toEqual([
      {
        kind: 'reading',
        step: 'clear',
        lap: 0,
        rod: 4,
        typed: '82',
        means: 'gauge',
        partials: [],
        tap: '',
        sure: false,
        simulated: false,
      },
    ])
  })
})

describe('what the round says of the turns', () => {
  it('stands before the next turn, and at the rod in the ladder', () => {
    const words = 'It looks as if rod 3 did not answer its turn. Look for a stripped thread.'
    const found = plan({ findings: [{ kind: 'not-answering', rods: [3], words }] })
    const rods = [1, 2, 3, 4].map((n) => ({ ...read(n, 200, n), owed_32: n === 1 ? 4 : 0 }))
    show(bench([step('clear', 'clear', [lap(null, { plan: found, rods })])]))
    const note = screen.getByRole('status', { name: 'Look at this first' })
    expect(note.textContent).toContain('A rod does not answer.')
    expect(note.textContent).toContain('stripped thread')
    expect(screen.getByText('look here')).toBeTruthy()
  })
})

describe('the two seals', () => {
  it('never take the second from pitch alone', () => {
    expect(pitchSeal(plan({ clear: true }))).toBe('clear')
    expect(tensionSeal(plan({ clear: true }))).toBe('unknown')
  })

  it('take it from the count or a gauge, even or not', () => {
    expect(tensionSeal(plan({ pull: pull({ told_by: ['tally'], clear: true }) }))).toBe('clear')
    expect(tensionSeal(plan({ pull: pull({ told_by: ['gauge'], clear: false }) }))).toBe('not-yet')
  })

  it('do not call a gauge’s evenness pitch-clear', () => {
    expect(pitchSeal(plan({ clear: true, means: 'gauge' }))).toBe('unknown')
    expect(pitchSeal(null)).toBe('unknown')
  })
})

describe('the picture of the pull', () => {
  it('tells apart what pitch shows and what it cannot', () => {
    const { container } = render(
      <PullPicture pull={pull({ told_by: ['tally'] })} badge="between" count={4} />,
    )
    expect(container.querySelectorAll('path.heard, path.unheard')).toHaveLength(2)
    expect(within(container).getByText('what pitch cannot show')).toBeTruthy()
  })

  it('draws nothing it does not know', () => {
    const { container } = render(<PullPicture pull={pull()} badge="between" count={4} />)
    expect(container.querySelector('path.unheard')).toBeNull()
    expect(within(container).getByText(/not known here/)).toBeTruthy()
  })

  it('puts a tighter rod outside the dotted line and a slacker one inside', () => {
    const { container } = render(
      <PullPicture pull={pull({ by_pitch: [0.2, -0.2, 0, 0] })} badge="at-rod" count={4} />,
    )
    const points = (container.querySelector('path.heard')?.getAttribute('d') ?? '')
      .replace(/[MZ]/g, '')
      .split('L')
      .map((pair) => Math.hypot(...(pair.trim().split(' ').map(Number) as [number, number])))
    expect(points[0]).toBeGreaterThan(58)
    expect(points[1]).toBeLessThan(58)
    expect(points[2]).toBeCloseTo(58)
  })
})
