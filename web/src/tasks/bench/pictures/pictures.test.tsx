import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { bench, head, step } from '../tests/builders'
import type { Head, Step } from '../log/types'
import { StepPicture } from './StepPicture'

afterEach(cleanup)

const ON_RODS = [
  ...['gate', 'wires-free', 'knob', 'strainer', 'butt', 'bed-rods', 'level', 'on-off', 'port', 'patch'],
  ...['foam', 'wrinkles', 'muffle-piece', 'muffle-ring', 'muffle-towel', 'muffle-pad'],
] as Step['picture'][]
const ON_ROPE = [
  ...['ears-up', 'unlace', 'slack', 'ears-on', 'pull', 'segments', 'align', 'range', 'pigtail'],
] as Step['picture'][]

function draw(picture: Step['picture'], of: Partial<Head>, badge = 'between'): SVGElement {
  const drum = head(of)
  const one = step('s', 'tick', [], { picture, picture_words: `how ${picture} looks` })
  render(<StepPicture bench={bench([one], { heads: [drum], of, badge })} step={one} />)
  return screen.getByRole('img', { name: `how ${picture} looks` }) as unknown as SVGElement
}
const numbers = (svg: SVGElement) =>
  [...svg.querySelectorAll('*')].flatMap((each) => [...each.attributes].map(({ value }) => value)).join(' ')
const rods = (count: number) => ({
  rods: count,
  tapping_order: Array.from({ length: count }, (_, n) => n + 1),
})

describe('the pictures of a step', () => {
  it.each(ON_RODS)('%s is drawn on six, eight and ten rods, in words for who does not see it', (picture) => {
    for (const count of [6, 8, 10]) {
      const svg = draw(picture, { ...rods(count), beside_bed: [2, 3], beside_port: [3] })
      expect(svg.childElementCount).toBeGreaterThan(0)
      expect(numbers(svg)).not.toMatch(/NaN|undefined|Infinity/)
      cleanup()
    }
  })

  it.each(ON_ROPE)('%s is drawn of a rope drum', (picture) => {
    const svg = draw(picture, rods(0))
    expect(svg.querySelectorAll('path, line, rect').length).toBeGreaterThan(2)
    expect(numbers(svg)).not.toMatch(/NaN|undefined|Infinity/)
  })

  it('names each rod of this drum once, and no other', () => {
    const svg = draw('patch', rods(10))
    const named = [...svg.querySelectorAll('text')].map((each) => Number(each.textContent)).filter(Boolean)
    expect(named.sort((a, b) => a - b)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10])
  })

  it('puts the port where this drum has it', () => {
    const at = (beside: number[]) => {
      const found = numbers(draw('port', { ...rods(8), beside_port: beside }))
      cleanup()
      return found
    }
    expect(at([3])).not.toBe(at([6]))
  })

  it('lays the bed where the rods beside it are', () => {
    const at = (beside: number[]) => {
      const found = numbers(draw('bed-rods', { ...rods(8), beside_bed: beside }))
      cleanup()
      return found
    }
    expect(at([2, 3, 6, 7])).not.toBe(at([1, 2, 5, 6]))
  })

  it('is not there where the step has none', () => {
    const one = step('s', 'tick')
    const { container } = render(<StepPicture bench={bench([one])} step={one} />)
    expect(container.textContent).toBe('')
  })
})
