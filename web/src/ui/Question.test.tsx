import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { between } from '../domain/likely'
import { Field } from './Field'

afterEach(cleanup)
const sent = vi.fn()

function Form({ start = '' }: { start?: string }) {
  const [typed, setTyped] = useState(start)
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        sent(typed)
      }}
    >
      <Field label="Rods" value={typed} onChange={setTyped} likely={between(4, 12, 'Usually 4 to 12.')} />
      <button>Keep</button>
    </form>
  )
}
const type = (words: string) => userEvent.type(screen.getByLabelText('Rods'), words)
const press = (name: string) => userEvent.click(screen.getByRole('button', { name }))

describe('a figure that can hardly be', () => {
  it('is not kept before it was asked about, and what was meant is one press', async () => {
    sent.mockClear()
    render(<Form />)
    await type('80{Enter}')
    expect(screen.getByRole('alert').textContent).toContain('80? Usually 4 to 12.')
    expect(sent).not.toHaveBeenCalled()
    await press('8')
    await press('Keep')
    expect(sent).toHaveBeenCalledExactlyOnceWith('8')
  })

  it('is kept when the person says that it is so, and not asked again', async () => {
    sent.mockClear()
    render(<Form />)
    await type('20')
    expect(screen.queryByRole('alert')).toBeNull() // not while it is being typed
    await userEvent.tab()
    await press('It is so')
    await press('Keep')
    expect(sent).toHaveBeenCalledExactlyOnceWith('20')
  })

  it('is not asked about when it stood there before', async () => {
    sent.mockClear()
    render(<Form start="20" />)
    await press('Keep')
    expect(sent).toHaveBeenCalledOnce()
  })
})
