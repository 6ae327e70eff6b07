import { cleanup, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { bench, lap, step } from '../tests/builders'
import { show } from '../tests/show'

afterEach(cleanup)

describe('the next instruction', () => {
  it('is announced by one region that is there from the start, whatever panel shows it', () => {
    const regions = () => [...document.querySelectorAll('main [aria-live]')].map((each) => each.textContent)
    show(bench([step('tension', 'passes', [lap(8)])]))
    expect(regions()).toEqual(['1, up a quarter.'])
    cleanup()
    show(bench([step('look', 'tick', [])]))
    expect(regions()).toEqual(['look. Say look.'])
    expect(screen.getByText('Say look.')).toBeTruthy()
  })
})
