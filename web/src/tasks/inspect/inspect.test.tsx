import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { WalkBody } from '../../api/outbox'
import { Look } from './Look'
import { fold, type Part, type Tick, type Verdict, type Walk, type WalkDrum } from './log/fold'
import { dayIn } from './planning'
import type { Said } from './useWalk'
import { VerdictNote } from './VerdictNote'

const drum: WalkDrum = {
  tag: 'MQ-7',
  name: 'Knot',
  kind: 'snare',
  kind_words: 'snare',
  size: '14 × 6 in',
  place: 'pit',
  rods_batter: 6,
  rods_resonant: 6,
  lost_batter: [],
  lost_resonant: [],
  bed_rods: [2, 5],
  badge: 'between',
  port: false,
  wires: '20 strands',
  heads: [],
  known: [
    {
      row: 4,
      finding: 'rattle',
      degree: 1,
      side: null,
      rod: null,
      spot: null,
      note: '',
      by: 'Bram',
      at: '2026-01-02T10:00:00Z',
    },
  ],
  last_look: null,
}
const tick = (id: string, where: Tick['where'], degrees = 3): Tick => ({
  id,
  where,
  short: id,
  words: id,
  answer: '',
  degrees: ['a little.', 'plainly.', 'badly.'].slice(0, degrees),
  usual: true,
})
const TICKS = [
  tick('dents', 'head'),
  tick('rod-missing', 'rod', 1),
  tick('strand-broken', 'wires'),
  tick('rattle', 'hardware'),
]
const CAN: Partial<Record<Part, string[]>> = {
  batter: ['dents', 'rod-missing'],
  wires: ['strand-broken'],
  hardware: ['rattle'],
}

let log: Walk['events'] = []
const said: Said[] = []
let show: () => void = () => undefined

function board(onDone = vi.fn()) {
  const tickOf = (id: string) => TICKS.find((each) => each.id === id)
  const view = () => {
    const walk = { id: 'w', drums: [drum], events: log } as unknown as Walk
    const look = fold(walk, []).get('MQ-7')
    if (!look) throw new Error('no look')
    return (
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { enabled: false } } })}>
        <Look
          drum={drum}
          look={look}
          parts={Object.keys(CAN) as Part[]}
          ticks={(part) => (CAN[part] ?? []).flatMap((id) => tickOf(id) ?? [])}
          tickOf={tickOf}
          say={(each) => {
            const id = `e${log.length}`
            said.push(each)
            log = [
              ...log,
              {
                id,
                seq: log.length,
                by: '',
                at: '',
                device: '',
                body: { ...each, drum: 'MQ-7' } as WalkBody,
              },
            ]
            return Promise.resolve(id)
          }}
          goesOut={false}
          mayChange
          last={false}
          since="2026-01-01T00:00:00Z"
          onDone={onDone}
        />
      </QueryClientProvider>
    )
  }
  const { rerender } = render(view())
  show = () => rerender(view())
  return onDone
}

const press = (key: string) => fireEvent.keyDown(document.body, { key })
const settle = async () => {
  await Promise.resolve()
  await Promise.resolve()
  show()
}

beforeEach(() => {
  log = []
  said.length = 0
})
afterEach(cleanup)

describe('a drum looked at', () => {
  it('is ticked by number, made worse by an arrow, taken back by the same number', async () => {
    board()
    press('1')
    await settle()
    expect(said).toMatchObject([{ kind: 'seen', finding: 'dents', degree: 2, side: 'batter', rod: null }])
    expect(screen.getByRole('button', { name: /plainly/ }).getAttribute('aria-pressed')).toBe('true')
    press('ArrowUp')
    await settle()
    expect(said[1]).toMatchObject({ kind: 'changed', event: 'e0', degree: 3 })
    press('ArrowUp')
    expect(said).toHaveLength(2) // there is no worse than bad
    press('1')
    await settle()
    expect(said[2]).toMatchObject({ kind: 'taken_back', event: 'e0' })
    expect(screen.queryByText('batter')).toBeNull()
  })

  it('asks at which rod, and takes the answer as a number', async () => {
    board()
    press('2')
    await settle()
    expect(screen.getByRole('status').textContent).toContain('At which rod')
    press('5')
    await settle()
    expect(said).toMatchObject([{ kind: 'seen', finding: 'rod-missing', side: 'batter', rod: 5 }])
    expect(screen.getByRole('button', { name: 'rod 5, missing' })).toBeTruthy()
    expect(screen.getByText('fetch one')).toBeTruthy()
  })

  it('takes a rod that was touched first', async () => {
    board()
    fireEvent.click(screen.getByRole('button', { name: 'rod 2' }))
    press('2')
    await settle()
    expect(said).toMatchObject([{ kind: 'seen', rod: 2 }])
  })

  it('says of what has no head no side', async () => {
    board()
    press('ArrowRight')
    press('1')
    await settle()
    expect(said).toMatchObject([{ kind: 'seen', finding: 'strand-broken', side: null, spot: null }])
  })

  it('is as last time, or done, in one press', async () => {
    const done = board()
    expect(screen.getByRole('button', { name: /Nothing found/ })).toBeTruthy()
    press('a')
    await settle()
    expect(said).toMatchObject([{ kind: 'again', rows: [4] }])
    expect(screen.getByRole('button', { name: /Next drum/ })).toBeTruthy()
    press(' ')
    expect(done).toHaveBeenCalledOnce()
  })

  it('knows that what was seen last time is gone', async () => {
    board()
    fireEvent.click(screen.getByRole('button', { name: 'Gone' }))
    await settle()
    expect(said).toMatchObject([{ kind: 'gone', rows: [4] }])
    expect(screen.getByRole('button', { name: 'Gone' }).getAttribute('aria-pressed')).toBe('true')
  })
})

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
