import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, describe, expect, it } from 'vitest'
import { useFirstFault, useHeading } from './useHeading'

afterEach(cleanup)

function App() {
  const [path, go] = useState('/one')
  useHeading(path, 'Drums')
  return (
    <>
      <button onClick={() => go(path === '/one' ? '/two' : '/one')}>go</button>
      <div id="view">
        <h1>{path === '/one' ? 'Heron' : 'Tug'}</h1>
        {path === '/two' ? <p>two</p> : null}
      </div>
    </>
  )
}

describe('a change of view', () => {
  it('has a title of its own and brings the focus to its heading', async () => {
    Object.defineProperty(HTMLElement.prototype, 'innerText', {
      configurable: true,
      get(this: HTMLElement) {
        return this.textContent
      },
    })
    render(<App />)
    expect(document.title).toBe('Heron, Drums, Red Tally')
    await userEvent.click(screen.getByText('go'))
    expect(document.title).toBe('Tug, Drums, Red Tally')
    expect(document.activeElement?.tagName).toBe('H1')
  })
})

function Form() {
  const [wrong, setWrong] = useState(false)
  useFirstFault()
  return (
    <form>
      <input aria-label="name" />
      <input aria-label="size" aria-invalid={wrong} />
      <button type="button" onClick={() => setWrong(true)}>
        Keep
      </button>
    </form>
  )
}

describe('a form with a fault', () => {
  it('brings the focus to the first field that is wrong', async () => {
    render(<Form />)
    await userEvent.click(screen.getByText('Keep'))
    await expect.poll(() => document.activeElement).toBe(screen.getByLabelText('size'))
  })
})
