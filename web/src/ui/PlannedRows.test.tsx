import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { PlannedRows } from './PlannedRows'

afterEach(cleanup)
const row = {
  ...{
    id: 'p',
    tag: 'MQ-1',
    name: 'Heron',
    work: 'new-batter-head',
    part: 'batter',
    title: 'New batter head',
  },
  ...{
    why: 'change it at the next bench day',
    due_on: '2026-12-06',
    days_late: 1,
    lacks: 1,
    made_by: 'Ines',
  },
  heads: { batter: { head: 'single 10 coated' } },
}

describe('planned work', () => {
  it('says what, by when, what is promised and what is to be bought, and is taken back by one press', async () => {
    const dropped = vi.fn()
    render(
      <MemoryRouter>
        <PlannedRows rows={[row]} onDrop={dropped} dropWords="Take it back" />
      </MemoryRouter>,
    )
    const said = screen.getByRole('listitem').textContent
    expect(said).toContain('Heron: New batter head')
    expect(said).toContain('1 day late')
    expect(said).toContain('by 6 Dec, single 10 coated promised, 1 piece to be bought')
    await userEvent.click(screen.getByRole('button', { name: 'Take it back' }))
    expect(dropped).toHaveBeenCalledExactlyOnceWith(row)
  })
})
