import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import type { Schemas } from '../../../api/client'

export type Sheet = Schemas['Sheet']
type Offer = Schemas['OfferOut']

export const side = (more: Partial<Schemas['FittedOut']> = {}): Schemas['FittedOut'] => ({
  side: 'batter',
  head: 'single 10 coated',
  since: '2025-12-19T10:00:00Z',
  by: 'Ines Calloway',
  rods: 8,
  lost: [],
  mean_hz: 174.2,
  note: 'F3 −4',
  spread_hz: 1.7,
  wanted_hz: 175,
  cents_off: -7.9,
  even: true,
  at_pitch: true,
  left_so: false,
  dated: 'known',
  months_old: 11,
  months_past: 0,
  check_due: null,
  check_overdue: false,
  job_id: null,
  job_where: '',
  ...more,
})
export const offer = (words: string, part: Offer['part'], more: Partial<Offer> = {}): Offer => ({
  work: 'settling-check',
  title: words,
  words,
  part,
  changes_heads: false,
  mesh: false,
  usual_first: null,
  new_wires: false,
  answers_checks: false,
  sides: part === 'heads' ? ['batter', 'resonant'] : ['batter'],
  minutes: 8,
  why_not: '',
  in_hand: null,
  ...more,
})
export const NEW = offer('New batter head', 'batter', { changes_heads: true })
export const CHECK = offer('Clear the batter', 'batter', { answers_checks: true })
export const sheet = (more: Partial<Sheet> = {}): Sheet => ({
  tag: 'MQ-041',
  name: 'Heron',
  kind: 'floor-tom',
  kind_words: 'floor tom',
  size: '15 × 13 in',
  shell: 'birch',
  place: 'boat shed',
  owner: 'Marrow Quay',
  kits: [],
  state: 'in',
  thread: '',
  hoops: '',
  snare_bed: false,
  badge: 'between',
  port: '',
  note: '',
  work: [NEW, CHECK],
  findings: [],
  kept: [{ name: 'muffling', words: 'a loose ring' }],
  sides: [side(), side({ side: 'resonant' })],
  wires: null,
  pitches: [],
  fittings: [],
  log: [],
  ...more,
})
export const show = (node: React.ReactNode) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>{node}</MemoryRouter>
    </QueryClientProvider>,
  )
export const point = (at: string, cents: number, spread = 10, which = 'batter') => ({
  side: which,
  at,
  mean_hz: 175,
  cents,
  spread_cents: spread,
})
