import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { vi } from 'vitest'
import type { Body } from '../../../api/outbox'
import { Board } from '../Board'
import type { Bench } from '../log/types'

/** A job on the bench; what is entered is gathered in the answer. */
export function show(job: Bench, mayChange = true) {
  // jsdom has no layout to scroll.
  Element.prototype.scrollIntoView = vi.fn()
  const entered: Body[] = []
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <Board
          bench={job}
          enter={(body) => entered.push(body)}
          refused={[]}
          waiting={false}
          mayChange={mayChange}
          checkDays={2}
        />
      </MemoryRouter>
    </QueryClientProvider>,
  )
  return entered
}
export const main = () => screen.getByTestId('main-action')
export const key = (name: string) => fireEvent.keyDown(document.body, { key: name })
export const instruction = () => screen.getByTestId('instruction').textContent
