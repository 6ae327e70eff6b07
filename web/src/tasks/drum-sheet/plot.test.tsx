import { cleanup, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { PitchPlot } from './PitchPlot'
import { point, sheet, show } from './tests/sheets'

afterEach(cleanup)

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
