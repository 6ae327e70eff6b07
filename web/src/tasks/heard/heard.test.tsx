import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { keys } from '../../api/keys'
import type { Session } from '../../api/session'
import type { Schemas } from '../../api/client'
import { HeardPage } from './HeardPage'
import { playTaps } from './player'

type HeardOn = Schemas['TapsOut']
type Tap = Schemas['TapOut']

vi.mock('./player', () => ({ playTaps: vi.fn(() => Promise.resolve(1)) }))
afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

const tap = (id: string, more: Partial<Tap> = {}): Tap => ({
  id,
  step: 'clear',
  lap: 0,
  rod: 1,
  by_name: 'Ines',
  heard_at: '2026-01-01T10:00:00Z',
  other_muted: true,
  simulated: false,
  status: 'ok',
  reason: '',
  hz: 200,
  cents_sigma: 0.5,
  second_hz: null,
  second_chance: null,
  strength_db: -9,
  glide_cents: 22,
  partials: [
    { hz: 200, level_db: 0 },
    { hz: 268, level_db: -9 },
  ],
  picture: { step_s: 0.02, ring_db: [0, -3, -6, -12], cents: [null, 22, 6, 0] },
  seconds: 1.1,
  has_sound: true,
  ...more,
})
const heardOn = (taps: Tap[], more: Partial<HeardOn['rounds'][number]> = {}): HeardOn => ({
  tag: 'MQ-001',
  name: 'Wren',
  part: 'batter',
  badge: 'between-rods',
  rounds: [
    { step: 'clear', title: 'Clear', side: 'batter', rods: 8, lap: 0, pair: null, centre_hz: null, ...more },
  ],
  taps,
})

function show(heard: HeardOn, role = 'technician') {
  const queries = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } })
  queries.setQueryData(keys.heard('j'), heard)
  queries.setQueryData(keys.kept, { keeps_sound: false, taps: 2, bytes: 130_000, most_bytes: 209_715_200 })
  queries.setQueryData(keys.session, { username: 'ines', role } as Session)
  const router = createMemoryRouter([{ path: '/bench/:job/taps', Component: HeardPage }], {
    initialEntries: ['/bench/j/taps'],
  })
  return render(
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  )
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

describe('what was heard', () => {
  it('shows each tap with its pitch, how sure that is, its ring and its family', () => {
    show(heardOn([tap('a', { rod: 3 })]))
    expect(screen.getByText('200.0')).toBeTruthy()
    expect(screen.getByText('± 1.0 cents')).toBeTruthy()
    expect(
      screen.getByRole('img', { name: /tap at rod 3 rang away and settled: 22 cents sharp/ }),
    ).toBeTruthy()
    expect(screen.getByRole('img', { name: 'Partials at 200 (read), 268 Hz' })).toBeTruthy()
  })

  it('says why a tap was not taken', () => {
    show(heardOn([tap('a', { status: 'refuse', hz: null, reason: 'two hits fell into one another' })]))
    expect(screen.getByText('Not taken')).toBeTruthy()
    expect(screen.getByText(/two hits fell into one another/)).toBeTruthy()
  })

  it('tells what may have been meant instead', () => {
    show(heardOn([tap('a', { status: 'flag', second_hz: 151.3, second_chance: 0.383 })]))
    expect(screen.getByText('151.3').parentElement?.textContent).toBe('or 151.3 Hz, 38 in 100')
  })

  it('lays the pair and its line on the head', () => {
    show(heardOn([tap('a')], { pair: { lower_hz: 198.2, upper_hz: 203.4, axis_deg: 41.6 } }))
    expect(screen.getByText('198.2')).toBeTruthy()
    expect(screen.getByRole('img', { name: /42 degrees from the badge/ })).toBeTruthy()
  })

  it('plays one tap, and any two one after the other', () => {
    show(heardOn([tap('a', { rod: 1 }), tap('b', { rod: 2 }), tap('c', { rod: 3 })]))
    press('Play rod 2')
    expect(playTaps).toHaveBeenLastCalledWith(['b'])
    press('Compare rod 1')
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Play both' }).disabled).toBe(true)
    press('Compare rod 3')
    press('Play both')
    expect(playTaps).toHaveBeenLastCalledWith(['a', 'c'])
    press('Compare rod 2') // a third: the first chosen goes
    press('Play both')
    expect(playTaps).toHaveBeenLastCalledWith(['c', 'b'])
  })

  it('offers nothing to play where no sound was kept', () => {
    show(heardOn([tap('a', { has_sound: false }), tap('b', { has_sound: false })]))
    expect(screen.queryByRole('button', { name: /Play/ })).toBeNull()
    expect(screen.getByText(/Two taps whose sound was kept/)).toBeTruthy()
  })

  it('asks before one’s own sound is deleted, and shows a viewer no such thing', () => {
    show(heardOn([tap('a')]))
    expect(screen.getByRole<HTMLInputElement>('switch').checked).toBe(false)
    press('Delete…')
    expect(screen.getByText(/Readings and pictures stay/)).toBeTruthy()
    cleanup()
    show(heardOn([tap('a')]), 'viewer')
    expect(screen.queryByRole('switch')).toBeNull()
  })

  it('says that no two pitches stand apart once every rod was heard and none does', () => {
    show(heardOn([1, 2, 3, 4, 5, 6, 7].map((rod) => tap(`t${rod}`, { rod }))))
    expect(screen.getByText(/A whole round of heard taps tells/)).toBeTruthy()
    cleanup()
    show(heardOn([1, 2, 3, 4, 5, 6, 7, 8].map((rod) => tap(`t${rod}`, { rod }))))
    expect(screen.getByText(/No two pitches stand apart in this round/)).toBeTruthy()
  })
})
