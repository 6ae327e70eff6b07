import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { turns32 } from '../domain/turns'
import { Tally } from './Tally'

afterEach(cleanup)

const marks = (container: HTMLElement) => ({
  lines: container.querySelectorAll('g line').length,
  filled: container.querySelectorAll('circle[fill=currentColor]').length,
  hollow: container.querySelectorAll('circle:not([fill])').length,
  below: container.querySelector('g')?.getAttribute('transform') === 'scale(1,-1)',
})

describe('tally strokes', () => {
  it('draw an upright for a quarter and four closed by a bar for a full turn', () => {
    expect(marks(render(<Tally turns={turns32(8)} />).container).lines).toBe(1)
    expect(marks(render(<Tally turns={turns32(32)} />).container).lines).toBe(5)
  })

  it('draw a half-height stroke for an eighth, a dot for a sixteenth, a hollow dot for a thirty-second', () => {
    const { container } = render(<Tally turns={turns32(4 + 2 + 1)} />)
    expect(marks(container)).toEqual({ lines: 1, filled: 1, hollow: 1, below: false })
    const [eighth] = container.querySelectorAll('g line')
    const quarter = render(<Tally turns={turns32(8)} />).container.querySelector('g line')
    const tall = (line: Element | null | undefined) =>
      Number(line?.getAttribute('y1')) - Number(line?.getAttribute('y2'))
    expect(tall(eighth) / tall(quarter)).toBeCloseTo(0.48, 1)
  })

  it('stand above the line to tighten and below it to slacken', () => {
    expect(marks(render(<Tally turns={turns32(8)} />).container).below).toBe(false)
    expect(marks(render(<Tally turns={turns32(-8)} />).container).below).toBe(true)
  })

  it('always come with the words, so neither colour nor shape alone carries the meaning', () => {
    render(<Tally turns={turns32(-12)} owed after=" ✓" />)
    expect(screen.getByText('down 3/8 ✓')).toBeTruthy()
  })

  it('are marked as owed only while they are', () => {
    expect(render(<Tally turns={turns32(8)} owed />).container.querySelector('[data-owed]')).toBeTruthy()
    expect(render(<Tally turns={turns32(8)} />).container.querySelector('figure[data-owed]')).toBeNull()
  })
})
