import { cleanup, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import { bench, lap, plan, read, rod, step } from './tests/builders'
import { key, main, show } from './tests/show'

afterEach(() => {
  cleanup()
  sessionStorage.clear()
  localStorage.clear()
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
      {
        kind: 'reading',
        step: 'clear',
        lap: 0,
        rod: 1,
        typed: '174.9',
        means: 'pitch',
        partials: [],
        tap: '',
        sure: false,
        simulated: false,
      },
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
    await userEvent.type(screen.getByLabelText('Pitch at rod 1'), '*')
    await userEvent.type(screen.getByLabelText('Pitch at the middle'), '114.2{Enter}')
    expect(entered).toEqual([{ kind: 'centre', step: 'clear', lap: 0, typed: '114.2', simulated: false }])
    expect(screen.getByLabelText('Pitch at rod 1')).toBeTruthy()
  })

  it('asks how the other head lies, keeps the answer through a reload, and says what recordings it takes', async () => {
    const job = () => bench([step('clear', 'clear', [lap(null)])])
    const other = () => screen.getByRole('button', { name: /^Other head/ })
    show(job())
    expect(other().textContent).toBe('muted')
    expect(screen.getByText('up to 64 MB')).toBeTruthy()
    await userEvent.click(other())
    cleanup()
    show(job())
    expect(other().textContent).toBe('ringing along')
    await userEvent.click(other())
    expect(other().textContent).toBe('muted')
  })

  it('asks nothing of another head where the drum has none', () => {
    show(bench([step('clear', 'clear', [lap(null)])], { other_head: false }))
    expect(screen.queryByText(/Other head/)).toBeNull()
  })

  it('asks about a reading that cannot be, and has the field in hand again for the next try', async () => {
    const entered = show(bench([step('clear', 'clear', [lap(null)])]))
    const field = screen.getByLabelText('Pitch at rod 1')
    await userEvent.type(field, '1840{Enter}')
    expect(screen.getByTestId('doubt').textContent).toContain('1840? This head is wanted near 200.')
    await userEvent.click(screen.getByRole('button', { name: 'Read again' }))
    expect(document.activeElement).toBe(field)
    await userEvent.keyboard('184{Enter}')
    expect(entered).toMatchObject([{ kind: 'reading', rod: 1, typed: '184', sure: false }])
  })

  it('says that the turns are worked out when the server answers, and asks for them once only', () => {
    const rods = [200, 201, 202, 203].map((hz, n) => read(n + 1, hz, 0))
    show(bench([step('clear', 'clear', [lap(null, { rods, asked: true })])]))
    expect(screen.getByText(/turns are worked out when the server answers; go on reading/)).toBeTruthy()
    expect(main().hasAttribute('disabled')).toBe(true)
    cleanup()
    show(bench([step('clear', 'clear', [lap(null, { rods })])]))
    expect(screen.queryByText(/when the server answers/)).toBeNull()
    expect(main().hasAttribute('disabled')).toBe(false)
  })

  it('puts a round right that was tapped in another order, with one key', () => {
    const moves = [1, 1, 2, 3].map((real, n) => ({ rod: n + 1, real }))
    const rods = [200, 201, 202, 203].map((hz, n) => read(n + 1, hz, 0))
    const tapped = { words: 'It sounds as if rod 1 was tapped twice.', certain: true, moves }
    const entered = show(bench([step('clear', 'clear', [lap(null, { rods, tapped })])]))
    expect(screen.getByText(/rod 1 was tapped twice/)).toBeTruthy()
    key('<')
    expect(entered).toEqual([{ kind: 'order', step: 'clear', lap: 0, moves }])
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
    expect(entered).toEqual([{ kind: 'plan', step: 'clear', lap: 0 }])
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
    expect(screen.getByText(/counts as even/)).toBeTruthy()
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
      { kind: 'plan', step: 'clear', lap: 0 },
    ])
    key('f')
    expect(entered.at(-1)).toEqual({ kind: 'step_done', step: 'clear' })
  })
})

describe('turn and tap', () => {
  const turning = (more: Partial<ReturnType<typeof plan>> = {}) => {
    const rods = [rod(1, { owed_32: 4 }), rod(2, { owed_32: -2 })]
    return bench([step('clear', 'clear', [lap(null, { rods, plan: plan(more) })])])
  }

  it('is one switch, remembered; then the rod in hand is turned and tapped, and entered at once', async () => {
    const entered = show(turning())
    expect(screen.queryByText(/turn it, then tap it/)).toBeNull()
    key('+')
    expect(screen.getByText(/turn it, then tap it/)).toBeTruthy()
    await userEvent.type(screen.getByLabelText('Pitch at rod 1'), '200.4{Enter}')
    const tapped = {
      kind: 'tapped',
      step: 'clear',
      lap: 0,
      means: 'pitch',
      partials: [],
      tap: '',
      sure: false,
      simulated: false,
    }
    expect(entered).toEqual([{ ...tapped, rod: 1, typed: '200.4', turns_32: 4 }])
    cleanup()
    show(turning())
    expect(screen.getByText(/turn it, then tap it/)).toBeTruthy()
  })

  it('reads any other rod without taking it for turned, and turns without a tap', async () => {
    key('+')
    const entered = show(turning())
    key('+')
    const field = screen.getByLabelText('Pitch at rod 1')
    await userEvent.type(field, '{Control>}a{/Control}') // all of the field is chosen, and nothing switched
    await userEvent.type(field, '{ArrowDown}')
    await userEvent.type(screen.getByLabelText('Pitch at rod 2'), '201{Enter}')
    expect(entered.at(-1)).toMatchObject({ kind: 'tapped', rod: 2, typed: '201', turns_32: null })
    await userEvent.type(screen.getByLabelText('Pitch at rod 1'), '{Enter}')
    expect(entered.at(-1)).toMatchObject({ kind: 'turned', made: [{ rod: 1, turns_32: 4 }] })
  })

  it('waits while a large move is made alike at every rod', () => {
    show(turning({ approach: 'equal-first' }))
    key('+')
    expect(screen.queryByText(/turn it, then tap it/)).toBeNull()
  })

  it('says what the taps came to before another round, and lets it be', () => {
    const left = { ...plan({ ask: 'done', chance_now: 0.998 }) }
    const before = lap(null, { rods: [rod(1)], plan: plan(), left })
    const job = bench([step('clear', 'clear', [before, lap(null)])])
    const entered = show(job)
    expect(screen.getByText(/Even by the taps, 99 in 100. Tap round once to be sure/)).toBeTruthy()
    key('f')
    expect(entered).toEqual([{ kind: 'step_done', step: 'clear' }])
  })
})
