import { act, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import * as sound from '../ui/chime'
import { RestAlarm } from './RestAlarm'

const resting = (name: string, minutes: number) => ({
  name,
  tag: name,
  job_id: name,
  ready_at: new Date(Date.now() + minutes * 60_000).toISOString(),
})
const show = (...items: ReturnType<typeof resting>[]) =>
  render(
    <MemoryRouter>
      <RestAlarm items={items} />
    </MemoryRouter>,
  )

describe('the alarm of a rest', () => {
  beforeEach(() => void vi.useFakeTimers())
  afterEach(() => void vi.useRealTimers())

  it('rings once for each drum when its own clock runs out, and not for those that had rested before', () => {
    const chime = vi.spyOn(sound, 'chime').mockImplementation(() => undefined)
    show(resting('Drifter', 5), resting('Skua', 20), resting('Petrel', -60))
    expect(screen.queryByRole('alert')).toBeNull()
    act(() => void vi.advanceTimersByTime(5 * 60_000 + 100))
    expect(screen.getByRole('alert').textContent).toContain('Drifter has rested')
    expect(screen.getByRole('alert').textContent).not.toContain('Skua')
    expect(chime).toHaveBeenCalledTimes(1)
    act(() => void vi.advanceTimersByTime(15 * 60_000))
    expect(chime).toHaveBeenCalledTimes(2)
    act(() => screen.getAllByText('Heard')[0]?.click())
    expect(screen.getByRole('alert').textContent).toContain('Skua has rested')
    expect(screen.getByRole('alert').textContent).not.toContain('Drifter')
  })
})
