import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Body } from '../../api/outbox'
import { Board } from './Board'
import type { Bench } from './state/types'
import { bench, lap, mark, plan, read, rod, step } from './tests/builders'

afterEach(() => {
  cleanup()
  sessionStorage.clear()
})
// jsdom has no layout to scroll.
Element.prototype.scrollIntoView = vi.fn()

function show(job: Bench, mayChange = true) {
  const entered: Body[] = []
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <Board
          bench={job}
          enter={(body) => entered.push(body)}
          refused={[]}
          waiting={false}
          mayChange={mayChange}
          checkDays={2}
        />
      </MemoryRouter>
    </QueryClientProvider>,
  )
  return entered
}
const main = () => screen.getByTestId('main-action')
const key = (name: string) => fireEvent.keyDown(document.body, { key: name })

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
    expect(entered).toEqual([{ kind: 'turned', step: 'slacken', lap: 0, rod: 1, turns_32: -64 }])
  })

  it('skips, ends a slackening early, and undoes the last entry', () => {
    const entered = show(
      bench([step('slacken', 'passes', [lap(-64)])], { undo: [{ event: 'last', words: 'rod 1 down 2' }] }),
    )
    key('s')
    key('f')
    key('u')
    expect(entered.map((body) => body.kind)).toEqual(['skipped', 'step_done', 'undo'])
    expect(screen.getByText('rod 1 down 2')).toBeTruthy()
  })

  it('enters what was really turned, by steps', async () => {
    const entered = show(bench([step('tension', 'passes', [lap(16)])]))
    key('e')
    await userEvent.click(screen.getByText('+ 1/16'))
    await userEvent.click(screen.getByText('− 1/4'))
    await userEvent.click(screen.getByText('Turned this much'))
    expect(entered).toEqual([{ kind: 'turned', step: 'tension', lap: 0, rod: 1, turns_32: 10 }])
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

describe('clearing on the bench', () => {
  it('keeps a reading with Enter and refuses a slip of the keys in words', async () => {
    const entered = show(bench([step('clear', 'clear', [lap(null)])]))
    const field = screen.getByLabelText('Pitch at rod 1')
    await userEvent.type(field, 'abc{Enter}')
    expect(screen.getByRole('alert').textContent).toContain('Give a pitch in hertz')
    await userEvent.clear(field)
    await userEvent.type(field, '174.9{Enter}')
    expect(entered).toEqual([
      { kind: 'reading', lap: 0, rod: 1, typed: '174.9', means: 'pitch', partials: [], tap: '' },
    ])
  })

  it('offers to listen, by the big button or with the space bar in the empty field, and says when it cannot', async () => {
    show(bench([step('clear', 'clear', [lap(null)])]))
    expect(main().textContent).toContain('Listen, hands free')
    await userEvent.type(screen.getByLabelText('Pitch at rod 1'), ' ')
    expect(await screen.findByText(/Typing still works/)).toBeTruthy()
    expect(main().textContent).toContain('Keep rod 1') // what cannot be is not offered again
  })

  it('takes the drum’s note from the middle and goes back to the rods', async () => {
    const entered = show(bench([step('clear', 'clear', [lap(null)])]))
    await userEvent.type(screen.getByLabelText('Pitch at rod 1'), 'i')
    await userEvent.type(screen.getByLabelText('Pitch at the middle'), '114.2{Enter}')
    expect(entered).toEqual([{ kind: 'centre', lap: 0, typed: '114.2' }])
    expect(screen.getByLabelText('Pitch at rod 1')).toBeTruthy()
  })

  it('puts a round right that was tapped in another order, with one key', () => {
    const moves = [1, 1, 2, 3].map((real, n) => ({ rod: n + 1, real }))
    const rods = [200, 201, 202, 203].map((hz, n) => read(n + 1, hz, 0))
    const tapped = { words: 'It sounds as if rod 1 was tapped twice.', certain: true, moves }
    const entered = show(bench([step('clear', 'clear', [lap(null, { rods, tapped })])]))
    expect(screen.getByText(/rod 1 was tapped twice/)).toBeTruthy()
    key('o')
    expect(entered).toEqual([{ kind: 'order', lap: 0, moves }])
  })

  it('keeps half a number through a reload', async () => {
    show(bench([step('clear', 'clear', [lap(null)])]))
    await userEvent.type(screen.getByLabelText('Pitch at rod 1'), '17')
    cleanup()
    show(bench([step('clear', 'clear', [lap(null)])]))
    expect((screen.getByLabelText('Pitch at rod 1') as HTMLInputElement).value).toBe('17')
  })

  it('goes to the rod before or after with the arrows', async () => {
    show(bench([step('clear', 'clear', [lap(null)])]))
    await userEvent.type(screen.getByLabelText('Pitch at rod 1'), '{ArrowDown}')
    expect(screen.getByLabelText('Pitch at rod 2')).toBeTruthy()
    await userEvent.type(screen.getByLabelText('Pitch at rod 2'), '{ArrowUp}{ArrowUp}')
    expect(screen.getByLabelText('Pitch at rod 4')).toBeTruthy()
  })

  it('works out the turns with one key when every rod is read', () => {
    const all = lap(null, { rods: [1, 2, 3, 4].map((n) => read(n, 200, 0)) })
    const entered = show(bench([step('clear', 'clear', [all])]))
    expect(main().textContent).toContain('Work out the turns')
    key(' ')
    expect(entered).toEqual([{ kind: 'plan', lap: 0 }])
  })

  it('says why, with the readings behind it', async () => {
    const planned = lap(null, {
      plan: plan(),
      rods: [
        { ...read(1, 198, -17), owed_32: 4, why: '1 and 3 face each other and are 17 cents low together.' },
        rod(2, { owed_32: 0 }),
        rod(3, { owed_32: 4 }),
        rod(4, { owed_32: 0 }),
      ],
    })
    show(bench([step('clear', 'clear', [planned])]))
    expect(screen.getByText(/17 cents low together/)).toBeTruthy()
    key('w')
    expect(await screen.findByText('Why these turns')).toBeTruthy()
    expect(screen.getByText('Lifting 1 and 3 evens the head.')).toBeTruthy()
  })

  it('says clear only when it is, and by which rule', () => {
    const cleared = lap(null, {
      plan: plan({ clear: true, spread: 1.2 }),
      rods: [1, 2, 3, 4].map((n) => read(n, 200, 0)),
    })
    show(bench([step('clear', 'clear', [cleared])]))
    expect(screen.getByText('Pitch-clear.')).toBeTruthy()
    expect(screen.getByText(/F2/)).toBeTruthy()
    expect(screen.getByTestId('pitch-seal').textContent).toContain('Pitch-clear')
    expect(screen.getByTestId('tension-seal').textContent).toContain('Tension not shown')
  })

  it('offers finer steps when whole steps cannot help, then leaves it to the person', () => {
    const stuck = lap(null, {
      plan: plan({ too_coarse: 'Steps of 1/16 turn cannot bring it.' }),
      rods: [1, 2, 3, 4].map((n) => rod(n, { owed_32: 0 })),
    })
    const entered = show(bench([step('clear', 'clear', [stuck])]))
    expect(screen.getByText('Steps of 1/16 turn cannot bring it.')).toBeTruthy()
    key(' ')
    expect(entered).toEqual([
      { kind: 'step_size', step_32: 1 },
      { kind: 'plan', lap: 0 },
    ])
    key('f')
    expect(entered.at(-1)).toEqual({ kind: 'step_done', step: 'clear' })
  })
})

describe('the end of a job', () => {
  it('rests for as long as the workshop rests, and then sends you to what is owed', () => {
    const entered = show(bench([step('rest', 'rest')]))
    expect(main().textContent).toContain('Rest it 30 minutes')
    key(' ')
    expect(entered).toEqual([{ kind: 'rest', minutes: 30 }])
    cleanup()
    show(bench([step('rest', 'rest')], { resting_until: new Date(Date.now() + 20 * 60_000).toISOString() }))
    expect(screen.getByText('20 min')).toBeTruthy()
    expect(main().textContent).toContain('To what is owed')
  })

  it('closes with the reason and the check, and shows what to write on the head', async () => {
    const entered = show(bench([step('close', 'close')], { reason: 'creased' }))
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
