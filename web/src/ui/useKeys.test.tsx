import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { setLetterKeys } from './letters'
import { useKeys, type KeyMap } from './useKeys'

afterEach(cleanup)

function Bench({ map, pressed }: { map: KeyMap; pressed?: () => void }) {
  useKeys(map)
  return (
    <>
      <input aria-label="reading" />
      <button type="button" onClick={pressed}>
        press
      </button>
      <input type="checkbox" aria-label="answer" />
    </>
  )
}

describe('keys of a view', () => {
  it('work anywhere on the page, big letters like small ones', () => {
    const undo = vi.fn()
    render(<Bench map={{ u: undo }} />)
    fireEvent.keyDown(document.body, { key: 'u' })
    fireEvent.keyDown(document.body, { key: 'U' })
    expect(undo).toHaveBeenCalledTimes(2)
  })

  it('leave writing alone, but let a pedal through', () => {
    const [undo, next] = [vi.fn(), vi.fn()]
    render(<Bench map={{ u: undo, PageDown: next }} />)
    fireEvent.keyDown(screen.getByLabelText('reading'), { key: 'u' })
    fireEvent.keyDown(screen.getByLabelText('reading'), { key: 'PageDown' })
    expect(undo).not.toHaveBeenCalled()
    expect(next).toHaveBeenCalledOnce()
  })

  it('leave Space and Enter to a control somebody went to by keys, once', async () => {
    const [go, pressed] = [vi.fn(), vi.fn()]
    render(<Bench map={{ ' ': go, Enter: go }} pressed={pressed} />)
    await userEvent.tab()
    await userEvent.tab()
    expect(document.activeElement).toBe(screen.getByRole('button'))
    await userEvent.keyboard(' ')
    expect([go, pressed].map((each) => each.mock.calls.length)).toEqual([0, 1])
    await userEvent.keyboard(' ') // what was pressed last is not pressed again
    expect([go, pressed].map((each) => each.mock.calls.length)).toEqual([1, 1])
  })

  it('give Space to the view after a press of the mouse, on a button as on a choice', async () => {
    const [go, pressed] = [vi.fn(), vi.fn()]
    render(<Bench map={{ ' ': go }} pressed={pressed} />)
    await userEvent.click(screen.getByRole('button'))
    await userEvent.keyboard(' ')
    await userEvent.click(screen.getByRole('checkbox'))
    await userEvent.keyboard(' ')
    expect([go, pressed].map((each) => each.mock.calls.length)).toEqual([2, 1])
    expect((screen.getByRole('checkbox') as HTMLInputElement).checked).toBe(true) // no answer is erased
  })

  it('never let Space scroll where it is a key, though there is nothing to do now', () => {
    render(<Bench map={{ ' ': undefined }} />)
    expect(fireEvent.keyDown(document.body, { key: ' ' })).toBe(false)
    expect(fireEvent.keyDown(document.body, { key: ' ', repeat: true })).toBe(false)
  })

  it('of one character can be switched off', () => {
    const [undo, go] = [vi.fn(), vi.fn()]
    render(<Bench map={{ u: undo, ' ': go }} />)
    setLetterKeys(false)
    fireEvent.keyDown(document.body, { key: 'u' })
    fireEvent.keyDown(document.body, { key: ' ' })
    setLetterKeys(true)
    expect([undo, go].map((each) => each.mock.calls.length)).toEqual([0, 1])
  })

  it('do nothing with a modifier, on repeat, or under an open dialog', () => {
    const go = vi.fn()
    const { rerender } = render(<Bench map={{ s: go }} />)
    fireEvent.keyDown(document.body, { key: 's', ctrlKey: true })
    fireEvent.keyDown(document.body, { key: 's', repeat: true })
    rerender(
      <>
        <Bench map={{ s: go }} />
        <div role="dialog" />
      </>,
    )
    fireEvent.keyDown(document.body, { key: 's' })
    expect(go).not.toHaveBeenCalled()
  })
})
