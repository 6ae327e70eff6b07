import { cleanup, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import type { Body } from '../../api/outbox'
import { bench, lap, mark, plan, rod, step } from './tests/builders'
import { instruction, key, show } from './tests/show'

afterEach(cleanup)

const main = () => screen.getByTestId('main-action').textContent
const made = (entered: Body[]) => entered.flatMap((body) => (body.kind === 'turned' ? [body.made] : []))
const rodNamed = (number: number): HTMLElement => {
  const found = screen.getAllByRole('button').find((each) => each.textContent?.startsWith(`Rod ${number}`))
  if (!found) throw new Error(`No rod ${number} to tap`)
  return found
}
const slacken = step('slacken', 'passes', [lap(-64), lap(-64)], { down: true })
const by = (up: 'rod' | 'pair' | 'pass', down = up) => ({ by: { up, down } })

describe('how turns are confirmed', () => {
  it('by facing pair: both rods in one entry, then the next pair', () => {
    const entered = show(bench([slacken], by('pair')))
    expect(instruction()).toContain('1 and 3')
    expect(main()).toContain('Both turned. Next: 2')
    key(' ')
    expect(made(entered)).toEqual([
      [
        { rod: 1, turns_32: -64 },
        { rod: 3, turns_32: -64 },
      ],
    ])
  })

  it('by pass: every rod owed in one entry', () => {
    const entered = show(bench([slacken], by('pass')))
    expect(main()).toContain('All turned. Pass 2 next')
    key(' ')
    expect(made(entered)[0]?.map((each) => each.rod)).toEqual([1, 3, 2, 4])
  })

  it('one key changes it in the middle of a pass, for slackening alone', () => {
    const half = lap(-64, {
      rods: [1, 2, 3, 4].map((n) =>
        rod(n, { owed_32: -64, turned: n === 1 ? { ...mark(), turns_32: -64 } : null }),
      ),
    })
    const entered = show(bench([step('slacken', 'passes', [half], { down: true })], by('rod', 'pass')))
    expect(instruction()).toContain('3  2  4') // what is left of the pass
    key('c')
    expect(entered).toEqual([{ kind: 'cadence', by: 'rod', down: true }])
  })

  it('takes exceptions with one tap: not yet, a touch more, was there already', async () => {
    const tension = step('tension', 'passes', [lap(16)])
    const entered = show(bench([tension], by('pass')))
    await userEvent.click(rodNamed(4))
    expect(main()).toContain('all but 4')
    await userEvent.click(screen.getByRole('button', { name: 'Rod 2 a touch more' }))
    await userEvent.click(screen.getByRole('button', { name: 'Rod 3 was there already' }))
    key(' ')
    expect(made(entered)[0]).toEqual([
      { rod: 1, turns_32: 16 },
      { rod: 3, turns_32: 0 },
      { rod: 2, turns_32: 18 },
    ])
  })

  it('leaves rounds of clearing rod by rod, since every rod has its own turn', () => {
    const planned = lap(null, { rods: [1, 2, 3, 4].map((n) => rod(n, { owed_32: n })) })
    const worked = { ...planned, plan: plan() }
    show(bench([step('clear', 'clear', [worked])], by('pass')))
    expect(main()).toContain('Turned. Next: 3')
  })
})
