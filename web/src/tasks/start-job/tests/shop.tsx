import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, beforeEach, vi } from 'vitest'
import { keys } from '../../../api/keys'
import type { Session } from '../../../api/session'
import { StartPage } from '../StartPage'

interface Call {
  method: string
  path: string
  body: Record<string, unknown>
}

export const calls: Call[] = []
/** What the server answers, by a part of the path; a test may change it. */
export const answers: Record<string, (body: Record<string, unknown>) => [status: number, body: unknown]> = {}
const workshop = {
  id: 1,
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
  first_head: 'usual',
  cadence: 'rod',
  slacken_by: 'pass',
  even_spread_hz: 2,
  copy_days: 7,
  batter_life_hours: 0,
  falls_times: 2,
  turned_visits: 3,
  callout_plays: 10,
  callout_stands: 8,
  callout_rods: 7,
  callout_sounds: 6,
  callout_noise: 4,
  callout_beside: 2,
} as const
const session: Session = {
  username: 'ines',
  shown_name: 'Ines',
  role: 'technician',
  workshop,
  kept_for: 'ines@wharf',
  email: '',
  workshops: [{ id: 1, name: 'Wharf', role: 'technician' }],
  demo: false,
  second_step: false,
  first_run: false,
  mail: false,
  demo_accounts: [],
}
const side = { side: 'batter', head: 'single 10 clear', rods: 6, lost: [], wanted_hz: 210, check_due: null }
const offer = {
  title: '',
  words: 'New batter head',
  part: 'batter',
  changes_heads: true,
  mesh: false,
  usual_first: null,
  new_wires: false,
  answers_checks: false,
  sides: ['batter'],
  minutes: 45,
  why_not: '',
  in_hand: null,
}
const NEW = { ...offer, work: 'new-head' }
const BOTH = {
  ...offer,
  work: 'both',
  words: 'Both heads',
  part: 'heads',
  sides: ['batter', 'resonant'],
  usual_first: 'resonant',
}
const CHECK = {
  ...offer,
  work: 'check',
  words: 'Clear the batter',
  changes_heads: false,
  answers_checks: true,
}
export const MESH = { ...offer, work: 'mesh', words: 'Mesh on', mesh: true }
export const aSheet = (work: object[]) => ({
  tag: 'MQ-012',
  name: 'Drifter',
  kind: 'rack-tom',
  kind_words: 'rack tom',
  size: '12 × 8 in',
  state: 'in',
  sides: [side, { ...side, side: 'resonant', head: 'single 10', wanted_hz: 240 }],
  work,
})
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
export const heads = [
  {
    stock_item: 7,
    head: 'single 10 coated',
    finish: 'coated',
    size: '12 in',
    count: 2,
    free: 2,
    promised: false,
    shelf: 'A1',
    warning: '',
  },
  {
    stock_item: 8,
    head: 'double 7+7 clear',
    finish: 'clear',
    size: '12 in',
    count: 0,
    free: 0,
    promised: false,
    shelf: 'A2',
    warning: '',
  },
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

/** A shop with one drum, a shelf and its ways, fresh for each test. */
export function aShop(): void {
  beforeEach(() => {
    calls.length = 0
    Object.assign(answers, {
      sheet: () => [200, aSheet([NEW, BOTH, CHECK])],
      fitting: () => [200, heads],
      patterns: () => [200, patterns],
      schools: () => [200, schools],
      jobs: (body: Record<string, unknown>) => [201, { id: body['id'], last_seq: 1 }],
    })
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
}

export function show(path: string) {
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
export const posted = () => calls.find((call) => call.method !== 'GET')?.body
