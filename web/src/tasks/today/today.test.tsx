import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { actionOf } from './links'
import { OwedLedger } from './OwedLedger'
import { SideColumn } from './SideColumn'
import type { OwedItem } from './owed'

afterEach(cleanup)

const item = (more: Partial<OwedItem>): OwedItem => ({
  kind: 'overdue-check',
  tag: 'MQ-001',
  name: 'Cormorant',
  kind_words: 'snare',
  side: 'batter',
  reason: 'new batter head; its check was due Sunday',
  count: 3,
  unit: 'days late',
  owed_now: true,
  minutes_left: null,
  ready_at: null,
  job_id: null,
  callout_id: null,
  walk_id: null,
  doing: 'start',
  action: 'Check',
  work: 'settling-check',
  part: 'batter',
  minutes: 9,
  ...more,
})
const show = (node: React.ReactNode) => render(<MemoryRouter>{node}</MemoryRouter>)

describe('the owed list', () => {
  it('is one link a line, to the one next action, with its reason in words', () => {
    show(<OwedLedger items={[item({})]} />)
    const line = screen.getByRole('link')
    expect(line.getAttribute('href')).toBe('/drums/MQ-001/start?work=settling-check&part=batter')
    for (const words of [
      'Cormorant',
      'new batter head; its check was due Sunday',
      'Check',
      '9 min',
      '3 days late',
    ])
      expect(line.textContent).toContain(words)
  })

  it('says how many of a group are not shown, and asks for them', async () => {
    const asked = vi.fn()
    show(
      <OwedLedger
        items={[item({}), item({ tag: 'MQ-002' })]}
        left={{ 'overdue-check': 1960 }}
        onMore={asked}
      />,
    )
    await userEvent.click(screen.getByRole('button', { name: '1960 more overdue' }))
    expect(asked).toHaveBeenCalledWith('overdue-check')
  })

  it('names each group once', () => {
    show(
      <OwedLedger
        items={[
          item({}),
          item({ tag: 'MQ-002', name: 'Lantern' }),
          item({ tag: 'MQ-003', kind: 'aged-head' }),
        ]}
      />,
    )
    expect(screen.getAllByText('Overdue')).toHaveLength(1)
    expect(screen.getAllByText('Past its age')).toHaveLength(1)
  })

  it('draws as many strokes as there are days, closed by fives', () => {
    const { container } = show(<OwedLedger items={[item({ count: 7 })]} />)
    expect(container.querySelectorAll('svg g')).toHaveLength(2)
    expect(container.querySelectorAll('svg line')).toHaveLength(4 + 1 + 2)
  })

  it('counts one day in the singular', () => {
    show(
      <OwedLedger
        items={[item({ count: 1 }), item({ tag: 'b', count: 1, unit: 'months past', kind: 'aged-head' })]}
      />,
    )
    expect(screen.getByText('1 day late')).toBeTruthy()
    expect(screen.getByText('1 month past')).toBeTruthy()
  })
})

describe('where a line leads', () => {
  it('is the job, or the start of a job', () => {
    expect(actionOf(item({ doing: 'go-on', job_id: 'j1' }))).toBe('/bench/j1')
    expect(actionOf(item({ kind: 'aged-head' }))).toContain('reason=age')
  })
})

describe('beside it', () => {
  const now = new Date()
  const inHand = item({
    kind: 'in-hand',
    owed_now: false,
    job_id: 'j1',
    doing: 'go-on',
    reason: 'batter, clean',
    count: 0,
    unit: '',
  })
  const resting = item({
    kind: 'resting',
    owed_now: false,
    job_id: 'j2',
    name: 'Drifter',
    doing: 'go-on',
    minutes_left: 38,
    ready_at: new Date(now.getTime() + 38 * 60_000).toISOString(),
  })
  const coming = item({
    kind: 'coming-check',
    owed_now: false,
    name: 'Whimbrel',
    ready_at: new Date(now.getTime() + 86_400_000).toISOString(),
  })

  it('stand the jobs in hand, what rests with the time left, and what is coming', () => {
    show(<SideColumn items={[inHand, resting, coming]} />)
    expect(screen.getByText('batter, clean')).toBeTruthy()
    expect(screen.getByText('38 min left')).toBeTruthy()
    expect(screen.getByText(/^tomorrow/)).toBeTruthy()
  })

  it('says what to do when nothing is in hand', () => {
    show(<SideColumn items={[]} />)
    expect(screen.getByText(/Start one from a drum/)).toBeTruthy()
  })

  it('shows how much of the rest is over', () => {
    const { container } = show(<SideColumn items={[resting]} />)
    const bar = container.querySelector('div[aria-hidden] > div') as HTMLElement
    expect(parseFloat(bar.style.width)).toBeCloseTo(100 - (38 / 1440) * 100)
  })
})
