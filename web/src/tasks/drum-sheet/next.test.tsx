import { cleanup } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { NextWork } from './NextWork'
import { CHECK, NEW, sheet, show, side, type Sheet } from './tests/sheets'

afterEach(cleanup)

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
    expect(works(sheet({ work: [taken, CHECK] }))).toEqual([
      'Go on with the batter',
      'Clear the batter',
      'Inspect X',
    ])
  })
})
