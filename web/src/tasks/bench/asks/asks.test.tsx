import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import type { Body } from '../../../api/outbox'
import type { Ask } from '../log/types'
import { bench, step } from '../tests/builders'
import { Asks } from './Asks'
import { turnOf } from './Ring'
import { unreadable } from './Typed'

const ask = (name: string, more: Partial<Ask> = {}): Ask => ({
  ...{ name, words: name, options: [], many: false, own: false, unit: '', needed: false },
  ...{ values: [], said: '' },
  ...more,
})
const option = (value: string) => ({ value, words: value })
const round = ['rod-1', 'gap-1', 'rod-2', 'gap-2', 'rod-3', 'gap-3', 'rod-4', 'gap-4'].map(option)

afterEach(cleanup)

function show(...asks: Ask[]): Body[] {
  const entered: Body[] = []
  render(
    <Asks bench={bench([])} step={step('s', 'tick', [], { asks })} enter={(body) => entered.push(body)} />,
  )
  return entered
}

describe('what a step asks', () => {
  it('takes one answer, and takes it back when it is tapped again', async () => {
    const port = ask('port', { options: ['ready', 'cut'].map(option), values: ['ready'] })
    const entered = show(port)
    await userEvent.click(screen.getByText('cut'))
    await userEvent.click(screen.getByText('ready'))
    expect(entered).toEqual([
      { kind: 'answer', step: 's', question: 'port', values: ['cut'], unit: '' },
      { kind: 'answer', step: 's', question: 'port', values: [], unit: '' },
    ])
  })

  it('takes several where several can hold, and one’s own words beside them', async () => {
    const on = ask('on', { options: ['ring', 'towel'].map(option), many: true, own: true, values: ['ring'] })
    const entered = show(on)
    await userEvent.click(screen.getByText('towel'))
    await userEvent.type(screen.getByLabelText('or in your words'), 'a sock')
    await userEvent.click(screen.getByText('Keep'))
    expect(entered.map((body) => 'values' in body && body.values)).toEqual([
      ['ring', 'towel'],
      ['ring', 'a sock'],
    ])
  })

  it('takes a pitch as it is typed, and says in words what cannot be one', async () => {
    const entered = show(ask('low', { unit: 'pitch' }))
    await userEvent.type(screen.getByLabelText('low'), 'soft')
    await userEvent.click(screen.getByText('Keep'))
    expect(screen.getByText('A pitch is hertz or a note: 98, or G2 +12.')).toBeTruthy()
    expect(entered).toEqual([])
    await userEvent.clear(screen.getByLabelText('low'))
    await userEvent.type(screen.getByLabelText('low'), '98,5')
    await userEvent.click(screen.getByText('Keep'))
    expect(entered).toMatchObject([{ question: 'low', values: ['98,5'], unit: 'pitch' }])
  })

  it('places each thing on the drum, one after the other', async () => {
    const entered = show(ask('logo', { options: round, values: ['gap-4'] }), ask('hoop', { options: round }))
    expect(screen.getByRole('button', { name: 'gap-4: logo' }).getAttribute('aria-pressed')).toBe('true')
    await userEvent.click(screen.getByText('hoop'))
    await userEvent.click(screen.getByRole('button', { name: 'rod-2' }))
    expect(entered).toMatchObject([{ question: 'hoop', values: ['rod-2'] }])
  })
})

describe('places round the drum', () => {
  it('lie as the plan view numbers them', () => {
    expect(turnOf('rod-1', 8, 'between')).toBe(0.125)
    expect(turnOf('gap-4', 8, 'between')).toBe(1)
    expect(turnOf('rod-1', 8, 'at-rod')).toBe(0)
    expect(turnOf('hour-3', 12, 'between')).toBe(0.25)
  })
})

describe('what is typed', () => {
  it.each(['98', '98,5 Hz', 'G2', 'F#3 -12', 'E♭2'])('%s is a pitch', (typed) =>
    expect(unreadable({ unit: 'pitch' }, typed)).toBe(''),
  )
  it.each(['12', '12 mm', '1,2 cm', '1/2 in', '5 1/2 in'])('%s is a length', (typed) =>
    expect(unreadable({ unit: 'length' }, typed)).toBe(''),
  )
  it('is not a length when it is a note', () => expect(unreadable({ unit: 'length' }, 'G2')).not.toBe(''))
})
