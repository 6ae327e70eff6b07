import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import type { Lap, Plan } from '../../log/types'
import { Noticed } from './Noticed'

const plan = (kind: string, words: string): Plan =>
  ({ findings: [{ kind, rods: [3], words }] }) as unknown as Plan
const lap = (of: Partial<Lap>): Lap => ({ plan: null, left: null, ...of }) as Lap

afterEach(cleanup)

describe('what is to be looked at first', () => {
  it('is what the last tap between turns says, before what the round said', () => {
    render(
      <Noticed
        lap={lap({
          plan: plan('fighting-pair', '3 and 7 stay apart.'),
          left: plan('not-answering', 'It looks as if rod 3 did not answer its turn.'),
        })}
      />,
    )
    const said = screen.getByRole('status', { name: 'Look at this first' })
    expect(said.textContent).toBe('A rod does not answer. It looks as if rod 3 did not answer its turn.')
  })

  it('is what the round said, where the taps say nothing', () => {
    const quiet = { findings: [] } as unknown as Plan
    render(<Noticed lap={lap({ plan: plan('fighting-pair', '3 and 7 stay apart.'), left: quiet })} />)
    expect(screen.getByRole('status').textContent).toBe('A pair that fights. 3 and 7 stay apart.')
  })

  it('is nothing where nothing was found', () => {
    const { container } = render(<Noticed lap={lap({})} />)
    expect(container.textContent).toBe('')
  })
})
