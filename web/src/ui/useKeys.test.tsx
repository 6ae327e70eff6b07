import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { useKeys, type KeyMap } from './useKeys'

afterEach(cleanup)

function Bench({ map }: { map: KeyMap }) {
  useKeys(map)
  return (
    <>
      <input aria-label="reading" />
      <button type="button">press</button>
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

  it('leave Space and Enter to a focused button', () => {
    const go = vi.fn()
    render(<Bench map={{ ' ': go, Enter: go }} />)
    fireEvent.keyDown(screen.getByRole('button'), { key: ' ' })
    fireEvent.keyDown(screen.getByRole('button'), { key: 'Enter' })
    expect(go).not.toHaveBeenCalled()
    fireEvent.keyDown(document.body, { key: ' ' })
    expect(go).toHaveBeenCalledOnce()
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
