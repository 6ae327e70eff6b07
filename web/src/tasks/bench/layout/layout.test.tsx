import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { bench, step } from '../tests/builders'
import { LayOutList } from './LayOutList'
import { laidOut } from './useShelf'

const layOut = step('lay-out', 'tick', [], { lays_out: true, tools: ['drum key', 'thread oil'] })
const oil = {
  name: 'thread oil',
  place: 'drawer 3',
  short: true,
  said_by: 'Ines',
  said_at: '2026-01-01T10:00:00Z',
}

const put: unknown[] = []
beforeEach(() => {
  put.length = 0
  vi.stubGlobal('fetch', async (request: Request) => {
    if (request.method === 'GET') return Response.json([oil])
    put.push(await request.json())
    return Response.json(oil)
  })
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const show = (mayChange = true) =>
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <LayOutList bench={bench([layOut])} step={layOut} mayChange={mayChange} />
    </QueryClientProvider>,
  )

describe('laying out', () => {
  it('lists the head with its shelf, then each tool with where it lies', () => {
    expect(laidOut(bench([layOut]), layOut, [oil])).toEqual([
      { name: 'single 10 coated, batter', place: 'A1', short: false, left: 2, counted: true },
      { name: 'drum key', place: '', short: false, left: null, counted: false },
      { name: 'thread oil', place: 'drawer 3', short: true, left: null, counted: false },
    ])
  })

  it('says first what there is none left of', async () => {
    show()
    expect((await screen.findByRole('status')).textContent).toContain('None left: thread oil.')
  })

  it('keeps where a thing lies', async () => {
    show()
    await userEvent.click(await screen.findByRole('button', { name: 'drum key: say where it lies' }))
    await userEvent.type(screen.getByLabelText('Where it lies'), 'hook by the door')
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }))
    await waitFor(() => expect(put).toEqual([{ name: 'drum key', place: 'hook by the door', short: false }]))
    await waitFor(() => expect(screen.queryByLabelText('Where it lies')).toBeNull())
  })

  it('says it is there again', async () => {
    show()
    await userEvent.click(await screen.findByRole('button', { name: 'thread oil: none left' }))
    await userEvent.click(screen.getByRole('radio', { name: 'there' }))
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }))
    await waitFor(() => expect(put).toEqual([{ name: 'thread oil', place: 'drawer 3', short: false }]))
  })

  it('lets those who look on read it only', async () => {
    show(false)
    expect(await screen.findByText('none left')).toBeTruthy()
    expect(screen.queryAllByRole('button')).toEqual([])
  })
})
