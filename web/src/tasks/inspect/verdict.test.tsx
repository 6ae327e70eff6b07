import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Verdict } from './log/fold'
import { dayIn } from './planning'
import { drum } from './tests/drum'
import { VerdictNote } from './VerdictNote'

const press = (key: string) => fireEvent.keyDown(document.body, { key })
afterEach(cleanup)

const verdict: Verdict = {
  tag: 'MQ-7',
  seq: 3,
  at: '',
  by: 'Ines',
  going_out: false,
  said: {
    batter: 'replace-next',
    resonant: 'nothing',
    wires: 'nothing',
    hardware: 'nothing',
    drum: 'replace-next',
  },
  stands: {
    batter: 'replace-next',
    resonant: 'nothing',
    wires: 'nothing',
    hardware: 'nothing',
    drum: 'replace-next',
  },
  words: {
    batter: 'replace at the next bench day',
    resonant: 'nothing to do',
    wires: 'nothing to do',
    hardware: 'nothing to do',
  },
  headline: 'A new batter at the next bench day.',
  lines: ['The coating is worn through.'],
  first: '',
  suspect: null,
  turn_over: false,
  because: [{ part: 'batter', rule: 'coat-worn', words: 'Worn.', cites: ['§11'], verdict: 'replace-next' }],
  would_change: [],
  overruled: {},
  works: [],
  answered: false,
}

describe('a verdict', () => {
  const onTonight = vi.fn()
  const note = (given: Verdict | null, say = vi.fn(() => Promise.resolve(''))) => {
    render(
      <VerdictNote
        drum={drum}
        verdict={given}
        mayChange
        lookedId="e1"
        last
        say={say}
        onNext={vi.fn()}
        onPlan={vi.fn()}
        onTonight={onTonight}
      />,
    )
    return say
  }

  it('is red only where something is owed before the drum goes out', () => {
    note(verdict)
    expect(screen.getByRole('heading', { level: 2 }).dataset['owed']).toBeUndefined()
    cleanup()
    note({ ...verdict, stands: { ...verdict.stands, drum: 'replace-now' } })
    expect(screen.getByRole('heading', { level: 2 }).dataset['owed']).toBe('true')
  })

  it('offers the stop-gap for one evening in one press', () => {
    const work = {
      work: 'turn-over',
      part: 'drum',
      title: 'Turn it over',
      answers: ['resonant'],
      verdict: 'replace-now',
      due_days: 0,
      new_heads: [],
      new_wires: false,
      tonight: true,
    } as const
    note({ ...verdict, works: [{ ...work, answers: [...work.answers], new_heads: [] }] })
    fireEvent.click(screen.getByRole('button', { name: 'Turn it over for tonight' }))
    expect(onTonight).toHaveBeenCalledWith(expect.objectContaining({ tonight: true, part: 'drum' }))
  })

  it('is decided otherwise only with a reason and something else', async () => {
    const say = note(verdict)
    press('o')
    fireEvent.click(await screen.findByRole('button', { name: 'It stands so' }))
    expect(screen.getByText('Choose what stands instead.')).toBeTruthy()
    fireEvent.click(screen.getByRole('radio', { name: 'clear it' }))
    expect(await screen.findByText(/Say why/)).toBeTruthy()
    fireEvent.change(screen.getByLabelText('Why'), { target: { value: ' fine for a term ' } })
    fireEvent.click(screen.getByRole('button', { name: 'It stands so' }))
    expect(say).toHaveBeenCalledWith({
      kind: 'overruled',
      part: 'batter',
      verdict: 'clear',
      reason: 'fine for a term',
    })
  })

  it('says so while there is no network to work it out', () => {
    note(null)
    expect(screen.getByText(/comes with the next connection/)).toBeTruthy()
  })
})

it('a day is counted over the end of a month', () => {
  expect(dayIn(7, new Date(2026, 1, 25))).toBe('2026-03-04')
})
