import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, describe, expect, it } from 'vitest'
import { useHeading } from './useHeading'

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
