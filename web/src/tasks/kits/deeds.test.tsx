import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { MemoryRouter } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Answer } from './Answer'
import { SingSheet } from './SingSheet'
import { drum, kit, plan, WISH } from './tests/two'
import type { Sang } from './useSing'

const sent: { path: string; body: unknown }[] = []
let answer: unknown = {}

beforeEach(() => {
  sent.length = 0
  vi.stubGlobal('fetch', async (request: Request) => {
    const body: unknown = request.headers.get('content-type')?.includes('json') ? await request.json() : null
    sent.push({ path: new URL(request.url).pathname, body })
    return new Response(JSON.stringify(answer), { headers: { 'Content-Type': 'application/json' } })
  })
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

function show(what: ReactNode, sung: Sang[] = []) {
  const queries = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } })
  queries.setQueryData(keys.sung(kit.id), sung)
  render(
    <QueryClientProvider client={queries}>
      <MemoryRouter>{what}</MemoryRouter>
    </QueryClientProvider>,
  )
}

const planned = (part: 'batter' | 'resonant'): Schemas['PlannedLine'] => ({
  ...{ id: part, tag: 'B', name: 'Linnet', kind_words: 'rack tom', work: 'another-pitch', part },
  ...{ title: `Another pitch, ${part}`, why: 'kit', due_on: '2026-12-06', days_late: 0, minutes: 20 },
  ...{ heads: {}, lacks: 0, made_by: 'Ines', made_at: '2026-12-01T10:00:00Z' },
})

describe('the jobs of a plan', () => {
  it('are made by one press, resonants first, and only once', async () => {
    answer = {
      planned: [planned('resonant'), planned('batter')],
      notes: ['Linnet is on the bench: close that job first, then its new pitch.'],
    }
    show(<Answer kit={kit} plan={plan} thinking={false} mayChange />)
    fireEvent.click(screen.getByText('Make 2 jobs'))
    expect(await screen.findByText('2 jobs planned')).toBeTruthy()
    expect(screen.getAllByText('Another pitch, resonant').length).toBe(1)
    expect(screen.getByText(/on the bench: close that job first/)).toBeTruthy()
    expect(screen.getByText('Begin with Linnet’s resonant').closest('a')?.getAttribute('href')).toBe(
      '/drums/B/start?work=another-pitch&part=resonant',
    )
    fireEvent.keyDown(window, { key: ' ' })
    expect(sent).toHaveLength(1)
    const { heads } = sent[0]?.body as Schemas['KitJobsIn']
    expect(heads.map(({ tag, side, job }) => [tag, side, job])).toEqual([
      ['B', 'resonant', true],
      ['B', 'batter', true],
    ])
  })

  it('begin with the batter of a bass, whose note it chooses', async () => {
    answer = { planned: [planned('batter')], notes: [] }
    const bass = { ...kit, drums: kit.drums.map((each) => ({ ...each, role: 'bass' as const })) }
    show(<Answer kit={bass} plan={plan} thinking={false} mayChange />)
    fireEvent.keyDown(window, { key: ' ' })
    await waitFor(() => expect(sent).toHaveLength(1))
    expect((sent[0]?.body as Schemas['KitJobsIn']).heads[0]?.side).toBe('batter')
  })

  it('wait for the plan, and are not for those who only look', () => {
    show(<Answer kit={kit} plan={plan} thinking mayChange />)
    fireEvent.keyDown(window, { key: ' ' })
    cleanup()
    show(<Answer kit={kit} plan={plan} thinking={false} mayChange={false} />)
    fireEvent.keyDown(window, { key: ' ' })
    expect(screen.queryByText('Make 2 jobs')).toBeNull()
    expect(sent).toHaveLength(0)
  })

  it('say how long they take', () => {
    show(<Answer kit={kit} plan={{ ...plan, minutes: 105 }} thinking={false} mayChange />)
    expect(screen.getByText('about 2 hours at the bench')).toBeTruthy()
    cleanup()
    show(<Answer kit={kit} plan={{ ...plan, minutes: 45 }} thinking={false} mayChange />)
    expect(screen.getByText('about 45 minutes at the bench')).toBeTruthy()
  })
})

const sang = (more: Partial<Sang> = {}): Sang => ({
  struck: 'A',
  at: '2026-01-01T10:00:00Z',
  sentences: ['Linnet answers with its note at 109 Hz, 22 dB under the stroke, for 1.3 s.'],
  hand_heard: true,
  answers: [{ tag: 'B', name: 'Linnet', hz: 109, level_db: -22, seconds: 1.3 }],
  move: { tag: 'B', name: 'Linnet', cents: -30, note_hz: 107.13, eased_by: 'uneven-on-purpose' },
  before: [],
  ...more,
})

describe('who answers', () => {
  const open = (sung: Sang[], onWish = vi.fn()) => {
    show(
      <SingSheet kit={kit} wish={{ ...WISH, stays: ['B'] }} onWish={onWish} onClose={() => undefined} />,
      sung,
    )
    return onWish
  }

  it('says what was heard last, and plans the drum so', () => {
    const onWish = open([sang()])
    expect(screen.getByText(/Linnet answers with its note/)).toBeTruthy()
    fireEvent.click(screen.getByText('Plan Linnet so'))
    expect(onWish).toHaveBeenCalledWith({ ...WISH, stays: [], notes: { B: '107.13 Hz' } })
  })

  it('shows whether it was softer this time, and what fell silent', () => {
    const before = [
      { tag: 'B', name: 'Linnet', hz: 109, level_db: -20, seconds: 1.4 },
      { tag: 'C', name: 'Serin', hz: 80, level_db: -40, seconds: 0.4 },
    ]
    open([
      sang({
        answers: [{ tag: 'B', name: 'Linnet', hz: 105, level_db: -35, seconds: 0.6 }],
        before,
        move: null,
      }),
    ])
    expect(screen.getByText(', was -20')).toBeTruthy()
    expect(screen.getByText('silent now')).toBeTruthy()
    expect(screen.queryByText(/^Plan/)).toBeNull()
  })

  it('strikes the drum that was chosen', async () => {
    open([])
    expect(screen.getByText('Siskin was not struck in this kit yet.')).toBeTruthy()
    fireEvent.click(screen.getByLabelText('Linnet'))
    answer = sang({ struck: 'B', sentences: ['Nothing answers Linnet.'], answers: [], move: null })
    fireEvent.click(screen.getByText('Simulated kit'))
    expect(await screen.findByText('Nothing answers Linnet.')).toBeTruthy()
    expect(sent).toEqual([{ path: '/api/kits/4/sing/simulated', body: { struck: 'B' } }])
  })

  it('offers no drum whose pitch nobody read', () => {
    const unread = { ...kit, drums: [...kit.drums, drum('C', 'Serin', 90, { note_hz: null })] }
    show(<SingSheet kit={unread} wish={WISH} onWish={() => undefined} onClose={() => undefined} />)
    expect(screen.queryByLabelText('Serin')).toBeNull()
  })
})
