import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { NextWork } from './NextWork'
import { PitchPlot } from './PitchPlot'
import { SideState } from './SideState'
import { Standing } from './Standing'
import { Timeline } from './Timeline'

type Sheet = Schemas['Sheet']
type Offer = Schemas['OfferOut']

afterEach(cleanup)

const side = (more: Partial<Schemas['FittedOut']> = {}): Schemas['FittedOut'] => ({
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
  months_old: 11,
  months_past: 0,
  check_due: null,
  check_overdue: false,
  job_id: null,
  job_where: '',
  ...more,
})
const offer = (words: string, part: Offer['part'], more: Partial<Offer> = {}): Offer => ({
  work: 'settling-check',
  title: words,
  words,
  part,
  changes_heads: false,
  answers_checks: false,
  sides: part === 'heads' ? ['batter', 'resonant'] : ['batter'],
  minutes: 8,
  why_not: '',
  in_hand: null,
  ...more,
})
const NEW = offer('New batter head', 'batter', { changes_heads: true })
const CHECK = offer('Clear the batter', 'batter', { answers_checks: true })
const sheet = (more: Partial<Sheet> = {}): Sheet => ({
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
const show = (node: React.ReactNode) => render(<MemoryRouter>{node}</MemoryRouter>)
const point = (at: string, cents: number, spread = 10, which = 'batter') => ({
  side: which,
  at,
  mean_hz: 175,
  cents,
  spread_cents: spread,
})

describe('how a side stands', () => {
  it('says what is fitted, since when, and how the pitch stands', () => {
    show(<SideState state={side()} chosen onChoose={vi.fn()} />)
    expect(screen.getByText(/11 months old/)).toBeTruthy()
    expect(screen.getByText(/8 cents low/)).toBeTruthy()
    expect(screen.getByRole('button', { pressed: true })).toBeTruthy()
  })

  it('is red only for what is owed', () => {
    const { container, rerender } = show(<SideState state={side()} chosen={false} onChoose={vi.fn()} />)
    expect(container.querySelector('strong')).toBeNull()
    const owed = side({
      lost: [4],
      months_past: 2,
      check_due: new Date(Date.now() - 3 * 86_400_000).toISOString(),
      check_overdue: true,
    })
    rerender(
      <MemoryRouter>
        <SideState state={owed} chosen={false} onChoose={vi.fn()} />
      </MemoryRouter>,
    )
    expect([...container.querySelectorAll('strong')].map((each) => each.textContent)).toEqual([
      'Rod 4 missing',
      '2 months past its age',
      'Check owed, 3 days late',
    ])
  })

  it('does not invent what is not known', () => {
    show(
      <SideState
        state={side({ head: null, since: null, mean_hz: null })}
        chosen={false}
        onChoose={vi.fn()}
      />,
    )
    expect(screen.getByText('no head on record')).toBeTruthy()
    expect(screen.queryByText(/Hz/)).toBeNull()
  })
})

describe('the pitch plot', () => {
  it('draws one line a head and a bar for the spread of each round', () => {
    const pitches = [
      point('2025-01-01T10:00:00Z', 4),
      point('2025-05-01T10:00:00Z', -12),
      point('2026-01-02T10:00:00Z', 0),
      point('2026-04-01T10:00:00Z', -9),
      point('2026-04-01T10:00:00Z', 0, 4, 'resonant'),
    ]
    const fittings = ['2025-01-01T10:00:00Z', '2026-01-02T10:00:00Z'].map((at) => ({
      side: 'batter',
      at,
      head: 'single 10 coated',
    }))
    const { container } = show(<PitchPlot sheet={sheet({ pitches, fittings })} side="batter" />)
    const drawn = [...container.querySelectorAll('path.pitch')]
      .map((path) => path.getAttribute('d') ?? '')
      .filter(Boolean)
    expect(drawn).toHaveLength(2)
    expect(container.querySelectorAll('line.spread')).toHaveLength(4)
    expect(container.querySelectorAll('line.fitted')).toHaveLength(2)
  })

  it('puts low pitches below the wanted line', () => {
    const { container } = show(
      <PitchPlot sheet={sheet({ pitches: [point('2026-01-01T10:00:00Z', -20)] })} side="batter" />,
    )
    const wanted = Number(container.querySelector('line.wanted')?.getAttribute('y1'))
    const bar = container.querySelector('line.spread')
    expect((Number(bar?.getAttribute('y1')) + Number(bar?.getAttribute('y2'))) / 2).toBeGreaterThan(wanted)
  })

  it('says so when there is nothing to draw', () => {
    show(<PitchPlot sheet={sheet()} side="resonant" />)
    expect(screen.getByText(/No reading yet/)).toBeTruthy()
  })
})

describe('the history', () => {
  const entry: Schemas['LogOut'] = {
    id: 1,
    at: '2026-03-01T10:00:00Z',
    kind: 'new-batter-head',
    side: 'batter',
    text: 'Batter fitted: single 10 coated.',
    outcome: '1 1/2 turns each',
    by: 'Ines Calloway',
    job_id: 'j',
    record: {
      tally_32: { 1: 48, 2: 52 },
      rounds: [{ readings_hz: { 1: 171.9, 2: 176 }, turns_32: { 1: 4 }, spread_hz: 4.1, mean_hz: 174 }],
      durations: [
        { step: 'Clean', minutes: 6 },
        { step: 'Clear', minutes: 11 },
      ],
      people: ['Bram Oakes', 'Ines Calloway'],
      old_head: 'double 7+7 clear',
      reason: 'creased',
      notes: ['badge rattles'],
    },
  }

  it('opens to turns per rod, readings per round, durations and who', () => {
    show(<Timeline log={[entry]} inHand={[]} />)
    fireEvent.click(screen.getByText('Batter fitted: single 10 coated.'))
    for (const words of ['Bram Oakes and Ines Calloway', '171.9', 'up 1/8', 'up 1 1/2', 'up 1 5/8', '4.1'])
      expect(screen.getByText(words, { exact: false })).toBeTruthy()
    expect(screen.getByText(/Clean 6 min, Clear 11 min; 17 min in all/)).toBeTruthy()
    fireEvent.click(screen.getByText('Batter fitted: single 10 coated.'))
    expect(screen.queryByText('171.9')).toBeNull()
  })

  it('shows older entries that know less', () => {
    show(<Timeline log={[{ ...entry, record: {} }]} inHand={[]} />)
    fireEvent.click(screen.getByText('Batter fitted: single 10 coated.'))
    expect(screen.getAllByText(/Ines Calloway/).length).toBeGreaterThan(0)
  })

  it('begins with what is on the bench now', () => {
    show(<Timeline log={[entry]} inHand={[side({ job_id: 'j9', job_where: 'batter, clean' })]} />)
    expect(screen.getByRole('link').getAttribute('href')).toBe('/bench/j9')
  })
})

describe('what next with this drum', () => {
  const works = (of: Sheet) => {
    const { container } = show(<NextWork sheet={of} />)
    return [...container.querySelectorAll('button')].map((button) => button.textContent)
  }

  it('goes on with what is in hand first', () => {
    expect(works(sheet({ sides: [side({ job_id: 'j' }), side({ side: 'resonant' })] }))[0]).toBe(
      'Go on with the batter',
    )
  })

  it('puts an owed check before a new head', () => {
    const due = side({ check_due: '2026-01-01T00:00:00Z', check_overdue: true })
    expect(works(sheet({ sides: [due, side({ side: 'resonant' })] })).slice(0, 2)).toEqual([
      'Check the batter',
      'New batter head',
    ])
  })

  it('offers no head change where there is no procedure for it, and nothing on a retired drum', () => {
    const no = { ...NEW, why_not: 'This drum is tensioned by rope.' }
    expect(works(sheet({ work: [no, CHECK] }))).not.toContain('New batter head')
    expect(works(sheet({ work: [no] }))).toEqual([])
  })
  it('offers no second job where one is in hand on the same part', () => {
    const taken = { ...NEW, in_hand: 'j1' }
    expect(works(sheet({ work: [taken, CHECK] }))).toEqual(['Go on with the batter', 'Clear the batter'])
  })
})

describe('what was found', () => {
  it('stands on the sheet in red until it is put right', () => {
    const found = {
      id: 4,
      finding: 'rod-missing',
      words: 'rod missing',
      place: 'batter, rod 3',
      degree: 2,
      note: '',
      owed: 'fetch' as const,
      answer: 'fetch or lend',
      found_at: '2026-01-01T10:00:00Z',
      by: 'Ines',
      job_id: 'j',
    }
    const queries = new QueryClient()
    const { container } = render(
      <QueryClientProvider client={queries}>
        <Standing findings={[found]} tag="MQ-041" mayChange />
      </QueryClientProvider>,
    )
    expect(container.querySelector('strong')?.textContent).toBe('to fetch')
    expect(screen.getByText(/rod missing, batter, rod 3/)).toBeTruthy()
    expect(screen.getByText('Put right')).toBeTruthy()
  })
})
