import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { keys } from '../../api/keys'
import type { Session } from '../../api/session'
import { StartPage } from './StartPage'

interface Call {
  method: string
  path: string
  body: Record<string, unknown>
}

const calls: Call[] = []
let answers: Record<string, (body: Record<string, unknown>) => [status: number, body: unknown]>
const workshop = {
  name: 'Wharf',
  bench_name: 'bench',
  length_unit: 'in',
  a4_hz: 440,
  pattern: 'star',
  stretch: 'palm',
  step_32: 2,
  logo: 'badge',
  grease: 'when-dry',
  after_stretch: 'back',
  evenness: 'even',
  resonant: 'equal',
  means: 'pitch',
  snare_note: 'none',
  bed_rods: 'matched',
  bass_pitch: 'lowest',
  old_heads: 'never',
  rest_minutes: 30,
  check_after_days: 2,
  batter_life_months: 12,
  resonant_life_months: 30,
  leave_above: true,
  tap_round: true,
  first_head: 'resonant',
  cadence: 'rod',
  slacken_by: 'pass',
  even_spread_hz: 2,
} as const
const session: Session = {
  username: 'ines',
  shown_name: 'Ines',
  role: 'technician',
  workshop,
  demo_accounts: [],
}
const side = { side: 'batter', head: 'single 10 clear', rods: 6, lost: [], wanted_hz: 210, check_due: null }
const offer = {
  title: '',
  words: 'New batter head',
  part: 'batter',
  changes_heads: true,
  answers_checks: false,
  sides: ['batter'],
  minutes: 45,
  why_not: '',
  in_hand: null,
}
const NEW = { ...offer, work: 'new-head' }
const BOTH = { ...offer, work: 'both', words: 'Both heads', part: 'heads', sides: ['batter', 'resonant'] }
const CHECK = {
  ...offer,
  work: 'check',
  words: 'Clear the batter',
  changes_heads: false,
  answers_checks: true,
}
const patterns = [
  {
    pattern: 'star',
    order: [1, 4, 2, 5, 3, 6],
    reaches_all: true,
    note: '',
    tilt: 1,
    saddle: 2,
    recommended: true,
  },
  {
    pattern: 'every-third',
    order: [1, 4, 2, 5, 3, 6],
    reaches_all: false,
    note: 'It is run here as three laps.',
    tilt: 1,
    saddle: 2,
    recommended: false,
  },
]
const heads = [
  { stock_item: 7, head: 'single 10 coated', finish: 'coated', size: '12 in', count: 2, shelf: 'A1' },
  { stock_item: 8, head: 'double 7+7 clear', finish: 'clear', size: '12 in', count: 0, shelf: 'A2' },
]

const schools = [
  {
    number: 2,
    way: 'stretch',
    question: 'How is a new head seated?',
    now: 'palm',
    choices: [
      { value: 'palm', words: 'by palm pressure', speaks_for: 'Gentle.', against: 'Stretches the middle.' },
      { value: 'barely', words: 'barely', speaks_for: 'Whole life.', against: 'Drops more.' },
    ],
  },
]

beforeEach(() => {
  calls.length = 0
  answers = {
    sheet: () => [
      200,
      {
        tag: 'MQ-012',
        name: 'Drifter',
        kind_words: 'rack tom',
        size: '12 × 8 in',
        state: 'in',
        sides: [side, { ...side, side: 'resonant', head: 'single 10', wanted_hz: 240 }],
        work: [NEW, BOTH, CHECK],
      },
    ],
    fitting: () => [200, heads],
    patterns: () => [200, patterns],
    schools: () => [200, schools],
    jobs: (body) => [201, { id: body['id'], last_seq: 1 }],
  }
  vi.stubGlobal('fetch', async (request: Request) => {
    const path = new URL(request.url).pathname
    const body = request.method === 'GET' ? {} : ((await request.json()) as Record<string, unknown>)
    calls.push({ method: request.method, path, body })
    const [, answer] = Object.entries(answers).find(([name]) => path.includes(name)) ?? []
    const [status, data] = answer?.(body) ?? [404, {}]
    return new Response(JSON.stringify(data), { status, headers: { 'Content-Type': 'application/json' } })
  })
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

function show(path: string) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } })
  queries.setQueryData(keys.session, session)
  const routes = [
    { path: '/drums/:tag/start', Component: StartPage },
    { path: '/bench/:job', Component: () => <p>on the bench</p> },
  ]
  render(
    <QueryClientProvider client={queries}>
      <RouterProvider router={createMemoryRouter(routes, { initialEntries: [path] })} />
    </QueryClientProvider>,
  )
}
const posted = () => calls.find((call) => call.method !== 'GET')?.body

describe('starting a job', () => {
  it('proposes the head that is in stock, the usual pitch and the workshop’s order, and starts with one touch', async () => {
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText(/dents or craters/))
    await userEvent.click(screen.getByText(/Start on the bench/))
    expect(await screen.findByText('on the bench')).toBeTruthy()
    expect(posted()).toMatchObject({
      tag: 'MQ-012',
      work: 'new-head',
      part: 'batter',
      heads: [{ side: 'batter', stock_item: 7, reason: 'dents or craters', target: '210' }],
      schools: [],
      cadence: 'rod',
    })
  })

  it('takes an answer in one’s own words and a head that is not from the shelf', async () => {
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText('Not from the shelf'))
    await userEvent.click(screen.getByText('something else'))
    await userEvent.type(screen.getByLabelText('In your words'), 'ink on it')
    await userEvent.click(screen.getByText(/Start on the bench/))
    await waitFor(() =>
      expect(posted()).toMatchObject({ heads: [{ stock_item: null, reason: 'ink on it' }] }),
    )
  })

  it('does not let an empty shelf be taken from', async () => {
    show('/drums/MQ-012/start?work=new-head&part=batter')
    const none = await screen.findByText('none left')
    expect(none.closest('label')?.hasAttribute('data-disabled')).toBe(true)
  })

  it('explains the order where the plain rule does not reach every rod', async () => {
    show('/drums/MQ-012/start?work=check&part=batter')
    await userEvent.click(await screen.findByText('every third rod'))
    expect(await screen.findByText(/It is run here as three laps/)).toBeTruthy()
  })

  it('shows a refusal where it happened, keeps what was chosen, and links to the job already in hand', async () => {
    answers['jobs'] = () => [
      409,
      {
        code: 'in_hand',
        message: 'A job on this batter head is in hand already.',
        fields: { job: 'j1' },
        kept: '',
      },
    ]
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText(/Start on the bench/))
    expect((await screen.findByRole('alert')).textContent).toContain('in hand already')
    expect(screen.getByText('Open that job').closest('a')?.getAttribute('href')).toBe('/bench/j1')
  })

  it('marks the pitch when it is the pitch that cannot be', async () => {
    answers['jobs'] = () => [
      422,
      { code: 'bad_quantity', message: 'A drum head speaks between 20 and 2000 Hz.', fields: {}, kept: '' },
    ]
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText(/Start on the bench/))
    expect(await screen.findByText('A drum head speaks between 20 and 2000 Hz.')).toBeTruthy()
  })

  it('asks twice with the same id, so that a second touch starts no second job', async () => {
    answers['jobs'] = () => [
      503,
      { code: 'database_down', message: 'The record book cannot be reached just now.', fields: {}, kept: '' },
    ]
    show('/drums/MQ-012/start?work=check&part=batter')
    const button = await screen.findByText(/Start on the bench/)
    await userEvent.click(button)
    await screen.findByRole('alert')
    await userEvent.click(button)
    await waitFor(() => expect(calls.filter((call) => call.method === 'POST')).toHaveLength(2))
    const ids = calls.filter((call) => call.method === 'POST').map((call) => call.body['id'])
    expect(ids[0]).toBe(ids[1])
  })

  it('asks for both heads, each with its own pitch, and which goes first', async () => {
    show('/drums/MQ-012/start?work=both&part=heads')
    await userEvent.click(await screen.findByText('batter first'))
    await userEvent.click(screen.getByText('by facing pair'))
    await userEvent.click(screen.getByText(/Start on the bench/))
    await waitFor(() =>
      expect(posted()).toMatchObject({
        part: 'heads',
        schools: [{ way: 'first_head', value: 'batter' }],
        cadence: 'pair',
        heads: [
          { side: 'batter', target: '210' },
          { side: 'resonant', target: '240' },
        ],
      }),
    )
  })

  it('says so when there is no such work', async () => {
    show('/drums/MQ-012/start?work=polish&part=batter')
    expect(await screen.findByText(/no such work/)).toBeTruthy()
  })

  it('does one thing otherwise than the workshop, with what speaks for and against it', async () => {
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText('Workshop’s ways, 1 of them matter here'))
    await userEvent.click(screen.getByText('barely'))
    expect(screen.getByText(/But: Drops more/)).toBeTruthy()
    expect(screen.getByText('This time otherwise: barely')).toBeTruthy()
    await userEvent.click(screen.getByText(/Start on the bench/))
    await waitFor(() =>
      expect(posted()).toMatchObject({
        schools: [{ way: 'stretch', value: 'barely' }],
        heads: [{ side: 'batter' }],
      }),
    )
  })
})
