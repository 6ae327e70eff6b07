import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { aShop, answers, calls, show } from './tests/shop'

aShop()

describe('a job that cannot start as asked', () => {
  it('shows a refusal where it happened, keeps what was chosen, and links to the job already in hand', async () => {
    answers['jobs'] = () => [
      409,
      {
        code: 'in_hand',
        message: 'A job on this batter head is in hand already.',
        fields: { job: 'j1' },
        kept: '',
      },
    ]
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText(/Start on the bench/))
    expect((await screen.findByRole('alert')).textContent).toContain('in hand already')
    expect(screen.getByText('Open that job').closest('a')?.getAttribute('href')).toBe('/bench/j1')
  })

  it('marks the pitch when it is the pitch that cannot be', async () => {
    answers['jobs'] = () => [
      422,
      { code: 'bad_quantity', message: 'A drum head speaks between 20 and 2000 Hz.', fields: {}, kept: '' },
    ]
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText(/Start on the bench/))
    expect(await screen.findByText('A drum head speaks between 20 and 2000 Hz.')).toBeTruthy()
  })

  it('asks twice with the same id, so that a second touch starts no second job', async () => {
    answers['jobs'] = () => [
      503,
      { code: 'database_down', message: 'The record book cannot be reached just now.', fields: {}, kept: '' },
    ]
    show('/drums/MQ-012/start?work=check&part=batter')
    const button = await screen.findByText(/Start on the bench/)
    await userEvent.click(button)
    await screen.findByRole('alert')
    await userEvent.click(button)
    await waitFor(() => expect(calls.filter((call) => call.method === 'POST')).toHaveLength(2))
    const ids = calls.filter((call) => call.method === 'POST').map((call) => call.body['id'])
    expect(ids[0]).toBe(ids[1])
  })

  it('says so when there is no such work', async () => {
    show('/drums/MQ-012/start?work=polish&part=batter')
    expect(await screen.findByText(/no such work/)).toBeTruthy()
  })

  it('does not let an empty shelf be taken from', async () => {
    show('/drums/MQ-012/start?work=new-head&part=batter')
    const none = await screen.findByText('none left')
    expect(none.closest('label')?.hasAttribute('data-disabled')).toBe(true)
  })
})
