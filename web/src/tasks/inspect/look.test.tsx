import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { WalkBody } from '../../api/outbox'
import { Look } from './Look'
import { fold, type Part, type Tick, type Walk } from './log/fold'
import { drum } from './tests/drum'
import type { Said } from './useWalk'

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
    press('r')
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
