import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { Sides } from './Sides'
import { TwoBeams } from './TwoBeams'

afterEach(cleanup)

const film = (more: Partial<Schemas['FilmOut']> = {}): Schemas['FilmOut'] => ({
  hz: 175,
  note: 'F3 +4',
  share: 0.05,
  rod_load_n: 275,
  highest_hz: 528,
  allowed: true,
  words: 'far from the film’s limit',
  ...more,
})
const plan = (more: Partial<Schemas['TwoHeadsOut']> = {}): Schemas['TwoHeadsOut'] => ({
  batter: film(),
  resonant: film({ hz: 208.1 }),
  fundamental_hz: 107.2,
  fundamental_note: 'A2 −45',
  fundamental_sd_hz: 0.4,
  upper_hz: 201,
  by_mass_hz: 0.4,
  by_air_hz: 0,
  character: 'shorter and punchier',
  why: 'the resonant head answers higher',
  assumed: '',
  ...more,
})
const heights = (container: HTMLElement): number[] =>
  [...container.querySelectorAll('path.head')].map((path) =>
    Number(/M\S+ (\S+) H/.exec(path.getAttribute('d') ?? '')?.[1]),
  )

describe('two heads', () => {
  it('stand at the height of their pitches', () => {
    const { container } = render(<TwoBeams plan={plan()} />)
    const [batter = 0, resonant = 0] = heights(container)
    expect(resonant).toBeLessThan(batter) // higher on the page
  })

  it('give each pitch with its margin and its reason in words', () => {
    render(<TwoBeams plan={plan()} />)
    expect(screen.getByText('Because the resonant head answers higher.')).toBeTruthy()
    expect(screen.getAllByRole('img', { name: 'film at 5 per cent of its yield' })).toHaveLength(2)
    expect(screen.getAllByText(/maker’s own limit comes first/)).toHaveLength(2)
    expect(screen.getByText('107.2')).toBeTruthy()
  })

  it('do not promise safety beyond the film', () => {
    render(
      <TwoBeams
        plan={plan({ batter: film({ allowed: false, words: '900 Hz is too high for this head' }) })}
      />,
    )
    expect(screen.getByText('900 Hz is too high for this head')).toBeTruthy()
    expect(screen.getAllByText(/Safe up to/)).toHaveLength(1)
  })
})

describe('what is known of the heads', () => {
  it('says when a usual film is reckoned with', () => {
    const side = {
      side: 'batter',
      head: '',
      assumed: true,
      film: film(),
      answer: 'One turn moves it.',
      settling: '',
    }
    render(<Sides sound={{ sides: [side], choices: [] }} />)
    expect(screen.getByText(/no head on record; a usual film is reckoned with/)).toBeTruthy()
    expect(screen.getByText('One turn moves it.')).toBeTruthy()
  })
})
