import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { axisOf, turnsOf } from './axis'
import { DrumInKit } from './DrumInKit'
import { KitPicture } from './KitPicture'
import { drum, head, kit, plan, WISH } from './tests/two'
import type { Wish } from './useKit'
import { Wishes } from './Wishes'

afterEach(cleanup)

describe('the axis of a kit', () => {
  it('puts an octave at the same height wherever it lies', () => {
    const { at } = axisOf(kit, plan)
    expect(at(110) - at(220)).toBeCloseTo(at(100) - at(200))
    expect(at(220)).toBeLessThan(at(110))
  })

  it('marks A and E by the workshop’s reference', () => {
    const names = axisOf(kit, plan).lines
    expect(names.find((each) => each.name === 'A2')?.hz).toBeCloseTo(110)
    expect(names.find((each) => each.name === 'E3')?.hz).toBeCloseTo(164.81, 1) // ISO 16: A4 440, equal steps
    expect(axisOf({ ...kit, a4_hz: 415 }, plan).lines.find((each) => each.name === 'A2')?.hz).toBeCloseTo(
      103.75,
    )
  })

  it('has room for a kit nobody has read', () => {
    const bare = { ...kit, drums: [drum('C', 'Serin', 0, { note_hz: null, heads: [] })] }
    expect(axisOf(bare, undefined).at(100)).toBeGreaterThan(0)
  })
})

describe('what a drum turns', () => {
  it('is said once where both heads do the same', () => {
    expect(turnsOf(plan.places[1])).toEqual(['down 1/8'])
    expect(turnsOf(plan.places[0])).toEqual(['stays'])
  })

  it('names the head where one turns alone', () => {
    const [first] = plan.places
    const heads = [head('batter', 220, 'stays', false), head('resonant', 230, 'up a hair')]
    expect(first && turnsOf({ ...first, heads })).toEqual(['resonant up a hair'])
  })
})

describe('the picture', () => {
  it('shows turns in red only where they are owed, and who is too near now', () => {
    render(<KitPicture kit={kit} plan={plan} stays={[]} onDrum={() => undefined} />)
    expect(screen.getByText('down 1/8').hasAttribute('data-owed')).toBe(true)
    expect(screen.getByText('stays').hasAttribute('data-owed')).toBe(false)
    expect(screen.getByText('now 16 cents')).toBeTruthy()
  })

  it('opens a drum', () => {
    const onDrum = vi.fn()
    render(<KitPicture kit={kit} plan={plan} stays={['A']} onDrum={onDrum} />)
    fireEvent.click(screen.getByText('Linnet'))
    expect(onDrum).toHaveBeenCalledWith('B')
    expect(screen.getByText('left as it is')).toBeTruthy()
  })
})

describe('wishes', () => {
  it('takes notes of others as a list, as it is typed', () => {
    const setWish = vi.fn()
    render(<Wishes kit={kit} wish={WISH} setWish={setWish} refused={{}} />)
    fireEvent.change(screen.getByLabelText('Keep clear of'), { target: { value: 'E1, 55 Hz' } })
    expect(setWish).toHaveBeenCalledWith({ ...WISH, against: ['E1', '55 Hz'] })
    fireEvent.change(screen.getByLabelText('Keep clear of'), { target: { value: 'E1,' } })
    expect((screen.getByLabelText('Keep clear of') as HTMLInputElement).value).toBe('E1,') // as typed: it can be rubbed out
    expect(setWish).toHaveBeenLastCalledWith({ ...WISH, against: ['E1'] })
  })

  it('shows a step that was asked for elsewhere, and asks for none of a drum alone', () => {
    const { rerender } = render(
      <Wishes kit={kit} wish={{ ...WISH, step: '350' }} setWish={() => undefined} refused={{}} />,
    )
    expect((screen.getByLabelText('From tom to tom') as HTMLSelectElement).value).toBe('350')
    rerender(
      <Wishes
        kit={{ ...kit, drums: kit.drums.slice(1) }}
        wish={WISH}
        setWish={() => undefined}
        refused={{}}
      />,
    )
    expect(screen.queryByLabelText('From tom to tom')).toBeNull()
  })
})

describe('one drum of a kit', () => {
  const open = (wish: Wish, onWish: (wish: Wish) => void, which = drum('B', 'Linnet', 200)) =>
    render(
      <MemoryRouter>
        <DrumInKit
          drum={which}
          placed={plan.places[1]}
          wish={wish}
          onWish={onWish}
          onClose={() => undefined}
        />
      </MemoryRouter>,
    )

  it('stays, and no longer has the note it had', () => {
    const onWish = vi.fn()
    open({ ...WISH, notes: { B: 'D3', A: 'E3' } }, onWish)
    fireEvent.click(screen.getByLabelText('stays as it is'))
    fireEvent.click(screen.getByText('Plan it so'))
    expect(onWish).toHaveBeenCalledWith({ ...WISH, stays: ['B'], notes: { A: 'E3' } })
  })

  it('has its own note and its own way of two heads', () => {
    const onWish = vi.fn()
    open(WISH, onWish)
    fireEvent.click(screen.getByLabelText('has this note'))
    fireEvent.change(screen.getByLabelText('Its own note, struck in the middle'), { target: { value: 'C3' } })
    fireEvent.change(screen.getByLabelText('Its two heads'), { target: { value: '300' } })
    fireEvent.click(screen.getByText('Plan it so'))
    expect(onWish).toHaveBeenCalledWith({ ...WISH, notes: { B: 'C3' }, above: { B: '300' } })
  })

  it('cannot stay where nobody has read it', () => {
    const unread = drum('B', 'Linnet', 200)
    for (const each of unread.heads) each.now_hz = null
    open(WISH, () => undefined, unread)
    expect((screen.getByLabelText('stays as it is') as HTMLInputElement).disabled).toBe(true)
    expect(screen.getAllByText(/never read/)).toHaveLength(2)
  })
})
