import { cleanup, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import { bench, lap, mark, rod, step } from './tests/builders'
import { key, main, show } from './tests/show'

afterEach(() => {
  cleanup()
  sessionStorage.clear()
})

describe('one thing at a time on the bench', () => {
  it('ticks a step off with the big button, the space bar or a pedal', async () => {
    const job = bench([
      step('clean', 'tick', [], { cautions: ['Wipe damp.'], points: ['Edge smooth'] }),
      step('set-head', 'tick'),
    ])
    const entered = show(job)
    expect(screen.getByText('Say clean.')).toBeTruthy()
    expect(screen.getByText('Wipe damp.')).toBeTruthy()
    expect(main().textContent).toContain('Done. Next: set-head')
    await userEvent.click(main())
    key(' ')
    key('PageDown')
    expect(entered).toEqual(Array(3).fill({ kind: 'step_done', step: 'clean' }))
  })

  it('asks for one rod, says how far, and records exactly that', () => {
    const entered = show(bench([step('slacken', 'passes', [lap(-64)])]))
    expect(screen.getByTestId('instruction').textContent).toContain('1down 2 turns')
    key(' ')
    expect(entered).toEqual([{ kind: 'turned', step: 'slacken', lap: 0, made: [{ rod: 1, turns_32: -64 }] }])
  })

  it('skips, ends a slackening early, and undoes the last entry', () => {
    const entered = show(
      bench([step('slacken', 'passes', [lap(-64)], { down: true })], {
        undo: [{ event: 'last', words: 'rod 1 down 2' }],
      }),
    )
    key('s')
    key('f')
    key('u')
    expect(entered.map((body) => body.kind)).toEqual(['turned', 'step_done', 'undo'])
    expect(screen.getByText('rod 1 down 2')).toBeTruthy()
  })

  it('enters what was really turned, by steps', async () => {
    const entered = show(bench([step('tension', 'passes', [lap(16)])]))
    key('o')
    await userEvent.click(screen.getByText('+ 1/16'))
    await userEvent.click(screen.getByText('− 1/4'))
    await userEvent.click(screen.getByText('Turned this much'))
    expect(entered).toEqual([{ kind: 'turned', step: 'tension', lap: 0, made: [{ rod: 1, turns_32: 10 }] }])
  })

  it('offers one more pass when the passes are made', () => {
    const made = lap(16, {
      rods: [1, 2, 3, 4].map((n) => rod(n, { owed_32: 16, turned: { ...mark(), turns_32: 16 } })),
    })
    const entered = show(
      bench([step('tension', 'passes', [made], { more_pass_32: 8 }), step('clear', 'clear')]),
    )
    key('m')
    key(' ')
    expect(entered).toEqual([
      { kind: 'pass_added', step: 'tension', each_32: 8 },
      { kind: 'step_done', step: 'tension' },
    ])
  })
})

describe('the end of a job', () => {
  it('rests for as long as the workshop rests, and then sends you to what is owed', () => {
    const entered = show(bench([step('rest', 'rest')]))
    expect(main().textContent).toContain('Rest it 30 minutes')
    key(' ')
    expect(entered).toEqual([{ kind: 'rest', step: 'rest', minutes: 30 }])
    cleanup()
    const until = new Date(Date.now() + 20 * 60_000).toISOString()
    show(bench([step('rest', 'rest', [], { resting_until: until })]))
    expect(screen.getByText('20 min')).toBeTruthy()
    expect(main().textContent).toContain('To what is owed')
  })

  it('closes with the reason and the check, and shows what to write on the head', async () => {
    const entered = show(bench([step('close', 'close')], { of: { reason: 'creased' } }))
    expect(screen.getByText('01 / 2026')).toBeTruthy()
    await userEvent.type(screen.getByLabelText(/Why the old head goes/), ' by the edge')
    await userEvent.click(screen.getByRole('checkbox'))
    await userEvent.click(main())
    expect(entered).toEqual([{ kind: 'close', reason: 'creased by the edge', check: false }])
  })

  it('offers a viewer nothing to do', () => {
    show(bench([step('clean', 'tick')]), false)
    expect(screen.queryByTestId('main-action')).toBeNull()
    expect(screen.queryByText('Undo')).toBeNull()
  })

  it('shows two entries that do not know of each other, and asks', async () => {
    const conflict = {
      event: 'c',
      about: 'rod 5',
      first: 'Ines: rod 5 down 2',
      second: 'Bram: rod 5 down 2',
      can_be_both: true,
    }
    const entered = show(bench([step('clean', 'tick')], { conflicts: [conflict] }))
    expect(screen.getByText(/Two entries for rod 5/)).toBeTruthy()
    await userEvent.click(screen.getByText('Both happened'))
    expect(entered).toEqual([{ kind: 'settle', event: 'c', take: 'both' }])
  })
})
