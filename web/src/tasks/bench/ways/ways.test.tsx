import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../../api/client'
import type { Body } from '../../../api/outbox'
import { bench, step } from '../tests/builders'
import { WaysSheet } from './WaysSheet'

const choice = (value: string, more: Partial<Schemas['ChoiceLeft']> = {}): Schemas['ChoiceLeft'] => ({
  value,
  words: value,
  speaks_for: `For ${value}.`,
  against: `Against ${value}.`,
  adds: [],
  leaves_out: [],
  alters: [],
  fetch: [],
  why_not: '',
  ...more,
})
const school: Schemas['SchoolLeftOut'] = {
  number: 2,
  way: 'stretch',
  question: 'How is a new head seated?',
  now: 'palm',
  choices: [
    choice('palm'),
    choice('over-tension', { adds: ['Let it lie'], alters: ['Seat'], fetch: ['a clock'] }),
    choice('barely', { why_not: 'No different on this drum.' }),
  ],
}

let answer: () => Response
beforeEach(() => vi.stubGlobal('fetch', async () => answer()))
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

function show() {
  const entered: Body[] = []
  let closed = false
  const queries = new QueryClient()
  const sheet = (last_seq: number) => (
    <QueryClientProvider client={queries}>
      <WaysSheet
        bench={bench([step('seat', 'tick')], { last_seq })}
        enter={(body) => entered.push(body)}
        onClose={() => (closed = true)}
      />
    </QueryClientProvider>
  )
  const { rerender } = render(sheet(8))
  return { entered, closed: () => closed, taken: (last_seq: number) => rerender(sheet(last_seq)) }
}

describe('the rest of a job otherwise', () => {
  it('says what a choice changes before it is made, and makes it once', async () => {
    answer = () => Response.json([school])
    const { entered, closed } = show()
    await userEvent.click(await screen.findByText('over-tension'))
    expect(screen.getByText('Brings Let it lie; changes Seat; takes besides a clock.')).toBeTruthy()
    expect(screen.getByText(/But: Against over-tension/)).toBeTruthy()
    await userEvent.click(screen.getByText('From here on: over-tension'))
    expect(entered).toEqual([{ kind: 'school', way: 'stretch', value: 'over-tension' }])
    expect(closed()).toBe(true)
  })

  it('keeps what was chosen while an entry made before it is taken', async () => {
    answer = () => Response.json([school])
    const { taken } = show()
    await userEvent.click(await screen.findByText('over-tension'))
    let asked = false
    answer = () => {
      asked = true
      return Response.json([school])
    }
    taken(9)
    expect(screen.getByText(/Brings Let it lie/)).toBeTruthy()
    await vi.waitFor(() => expect(asked).toBe(true))
    expect(await screen.findByText(/Brings Let it lie/)).toBeTruthy()
  })

  it('offers nothing for what is chosen already, and says why another cannot be', async () => {
    answer = () => Response.json([school])
    show()
    const barely = await screen.findByText('barely')
    expect(screen.queryByText(/From here on/)).toBeNull()
    expect(barely.closest('label')?.hasAttribute('data-disabled')).toBe(true)
    expect(screen.getByText('No different on this drum.')).toBeTruthy()
  })

  it('says so when nothing is left to choose', async () => {
    answer = () => Response.json([])
    show()
    expect(await screen.findByText(/Nothing that is left of this job/)).toBeTruthy()
  })

  it('says without network that the server works it out', async () => {
    answer = () => {
      throw new TypeError('network')
    }
    show()
    expect(await screen.findByText(/cannot be reached just now/)).toBeTruthy()
  })
})
