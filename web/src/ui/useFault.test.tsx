import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, describe, expect, it } from 'vitest'
import { Field } from './Field'
import { Select } from './Select'

afterEach(cleanup)

function Form() {
  const [wrong, setWrong] = useState(false)
  const error = wrong ? 'say which' : undefined
  const nothing = () => undefined
  return (
    <form>
      <Field label="name" value="" onChange={nothing} />
      <Select label="kind" value="" onChange={nothing} options={[]} error={error} />
      <Field label="size" value="" onChange={nothing} error={error} />
      <button type="button" onClick={() => setWrong(true)}>
        Keep
      </button>
    </form>
  )
}

describe('a form with faults', () => {
  it('brings the focus to the first that is wrong, and leaves it there', async () => {
    render(<Form />)
    await userEvent.click(screen.getByText('Keep'))
    expect(document.activeElement).toBe(screen.getByLabelText('kind'))
  })
})
