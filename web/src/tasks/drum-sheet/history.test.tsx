import { cleanup, fireEvent, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { Timeline } from './Timeline'
import { show, side } from './tests/sheets'

afterEach(cleanup)

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
    show(<Timeline tag="MQ-041" may log={[entry]} inHand={[]} />)
    fireEvent.click(screen.getByText('Batter fitted: single 10 coated.'))
    for (const words of ['Bram Oakes and Ines Calloway', '171.9', 'up 1/8', 'up 1 1/2', 'up 1 5/8', '4.1'])
      expect(screen.getByText(words, { exact: false })).toBeTruthy()
    expect(screen.getByText(/Clean 6 min, Clear 11 min; 17 min in all/)).toBeTruthy()
    fireEvent.click(screen.getByText('Batter fitted: single 10 coated.'))
    expect(screen.queryByText('171.9')).toBeNull()
  })

  it('shows older entries that know less', () => {
    show(<Timeline tag="MQ-041" may log={[{ ...entry, record: {} }]} inHand={[]} />)
    fireEvent.click(screen.getByText('Batter fitted: single 10 coated.'))
    expect(screen.getAllByText(/Ines Calloway/).length).toBeGreaterThan(0)
  })

  it('shows a correction with the line it corrects, which stays', () => {
    const corrects = { entry: 1, text: entry.text, at: entry.at, by: 'Ines Calloway' }
    const correction = {
      ...entry,
      id: 2,
      kind: 'correction',
      text: 'Correction: a single 7.',
      record: { corrects },
    }
    show(<Timeline tag="MQ-041" may log={[correction, entry]} inHand={[]} />)
    fireEvent.click(screen.getByText('Correction: a single 7.'))
    expect(screen.getByText(/The line it corrects/).textContent).toContain('Batter fitted: single 10 coated.')
    expect(screen.queryByRole('button', { name: 'Correct this line' })).toBeNull()
    fireEvent.click(screen.getAllByText('Batter fitted: single 10 coated.')[0] as HTMLElement)
    expect(screen.getByRole('button', { name: 'Correct this line' })).toBeTruthy()
  })

  it('begins with what is on the bench now', () => {
    show(
      <Timeline
        tag="MQ-041"
        may
        log={[entry]}
        inHand={[side({ job_id: 'j9', job_where: 'batter, clean' })]}
      />,
    )
    expect(screen.getByRole('link').getAttribute('href')).toBe('/bench/j9')
  })
})
