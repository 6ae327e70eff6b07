import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { createRef } from 'react'
import { MemoryRouter } from 'react-router'
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { FilterBar, NO_FILTER } from './FilterBar'
import { RegisterTable } from './RegisterTable'

afterEach(cleanup)
beforeAll(() => {
  globalThis.IntersectionObserver = class {
    observe() {}
    disconnect() {}
  } as unknown as typeof IntersectionObserver
})

const row = (tag: string, name: string, more: Partial<Schemas['DrumRow']> = {}): Schemas['DrumRow'] => ({
  tag,
  name,
  kind: 'snare',
  kind_words: 'snare',
  size: '14 × 6 in',
  rods: '10',
  place: 'boat shed',
  owner: 'Marrow Quay',
  kits: ['loan kit', 'pit kit'],
  state: 'in',
  standing: '',
  owed: false,
  ...more,
})
const drums = [
  row('MQ-001', 'Cormorant', { standing: 'check owed', owed: true }),
  row('MQ-002', 'Lantern', { standing: 'on the bench' }),
  row('MQ-003', 'Tern'),
]

function table() {
  const search = createRef<HTMLInputElement>()
  render(
    <MemoryRouter>
      <input ref={search} aria-label="search" />
      <RegisterTable drums={drums} searchRef={search} onMore={null} />
    </MemoryRouter>,
  )
  return screen.getByLabelText('search')
}
const focused = () => document.activeElement?.textContent
const press = (key: string) => fireEvent.keyDown(document.activeElement ?? document.body, { key })

describe('the register by keyboard', () => {
  it('goes from the search into the list and walks it, stopping at its ends', () => {
    const search = table()
    search.focus()
    press('ArrowDown')
    expect(focused()).toBe('Cormorant')
    press('ArrowDown')
    press('ArrowDown')
    press('ArrowDown')
    expect(focused()).toBe('Tern')
    press('ArrowUp')
    expect(focused()).toBe('Lantern')
  })

  it('opens a drum by its link', () => {
    table()
    expect(screen.getByText('Tern').getAttribute('href')).toBe('/drums/MQ-003')
  })

  it('is red only where something is owed', () => {
    table()
    expect(screen.getByText('check owed').hasAttribute('data-owed')).toBe(true)
    expect(screen.getByText('on the bench').hasAttribute('data-owed')).toBe(false)
  })
})

describe('the filters', () => {
  it('change one thing at a time and can all be taken away', () => {
    const changed = vi.fn()
    const filter = { ...NO_FILTER, kind: 'snare' }
    render(<FilterBar filter={filter} onChange={changed} choices={undefined} searchRef={createRef()} />)
    fireEvent.change(screen.getByLabelText(/Search/), { target: { value: 'tern' } })
    fireEvent.change(screen.getByLabelText('State'), { target: { value: 'out' } })
    fireEvent.click(screen.getByText('All'))
    expect(changed.mock.calls.map(([next]) => next as unknown)).toEqual([
      { ...filter, text: 'tern' },
      { ...filter, state: 'out' },
      NO_FILTER,
    ])
  })
})
