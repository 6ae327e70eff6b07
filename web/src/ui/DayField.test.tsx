import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { DayField } from './DayField'

afterEach(cleanup)
const said = vi.fn()

function Form({ start, hour }: { start: string; hour?: boolean }) {
  const [day, setDay] = useState(start)
  const keep = (next: string) => {
    said(next)
    setDay(next)
  }
  return <DayField label="Back by" value={day} onChange={keep} hour={hour ?? false} />
}
const parts = () => screen.getAllByRole('spinbutton').map((each) => each.textContent)

describe('a day', () => {
  it('is written day, month, year, with the day in words above it', () => {
    render(<Form start="2026-12-06" />)
    expect(parts()).toEqual(['06', '12', '2026'])
    expect(screen.getByText(/^Sun 6 Dec/)).toBeTruthy()
  })

  it('is stepped with the arrow keys part by part, and handed on as the server writes it', async () => {
    render(<Form start="2026-12-06" />)
    await userEvent.click(screen.getAllByRole('spinbutton')[0] as HTMLElement)
    await userEvent.keyboard('{ArrowUp}{ArrowRight}{ArrowDown}')
    expect(said).toHaveBeenLastCalledWith('2026-11-07')
  })

  it('may have its hour', async () => {
    render(<Form start="2026-12-06T19:30" hour />)
    expect(parts()).toEqual(['06', '12', '2026', '19', '30'])
    await userEvent.click(screen.getAllByRole('spinbutton')[3] as HTMLElement)
    await userEvent.keyboard('{ArrowUp}')
    expect(said).toHaveBeenLastCalledWith('2026-12-06T20:30')
  })
})
