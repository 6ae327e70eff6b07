import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { AsLeft } from './AsLeft'
import { SideState } from './SideState'
import { Standing } from './Standing'
import { show, side } from './tests/sheets'

afterEach(cleanup)

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

describe('how it was left', () => {
  it('names what must be known again, and is not there where nothing is kept', () => {
    const { container, rerender } = render(<AsLeft kept={[{ name: 'muffling', words: 'a loose ring' }]} />)
    expect(screen.getByText('muffling').nextSibling?.textContent).toBe('a loose ring')
    rerender(<AsLeft kept={[]} />)
    expect(container.textContent).toBe('')
  })
})
