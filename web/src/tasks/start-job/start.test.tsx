import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import { answers, aSheet, aShop, heads, MESH, posted, show } from './tests/shop'

aShop()

describe('starting a job', () => {
  it('proposes the head that is in stock, the usual pitch and the workshop’s order, and starts with one touch', async () => {
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText(/dents or craters/))
    await userEvent.click(screen.getByText(/Start on the bench/))
    expect(await screen.findByText('on the bench')).toBeTruthy()
    expect(posted()).toMatchObject({
      tag: 'MQ-012',
      work: 'new-head',
      part: 'batter',
      heads: [{ side: 'batter', stock_item: 7, reason: 'dents or craters', target: '210' }],
      schools: [],
      cadence: 'rod',
    })
  })

  it('takes an answer in one’s own words and a head that is not from the shelf', async () => {
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText('Not from the shelf'))
    await userEvent.click(screen.getByText('something else'))
    await userEvent.type(screen.getByLabelText('In your words'), 'ink on it')
    await userEvent.type(screen.getByLabelText('Which head is it?'), 'double 10 fibre')
    await userEvent.click(screen.getByText(/Start on the bench/))
    await waitFor(() =>
      expect(posted()).toMatchObject({
        heads: [{ stock_item: null, named: 'double 10 fibre', reason: 'ink on it' }],
      }),
    )
  })

  it('never proposes film for mesh, asks no pitch of it, and warns of a head of the wrong kind', async () => {
    answers['sheet'] = () => [200, aSheet([{ ...MESH }])]
    answers['fitting'] = () => [
      200,
      heads.map((head) => ({ ...head, warning: 'Not a snare-side film: 10 mil.' })),
    ]
    show('/drums/MQ-012/start?work=mesh&part=batter')
    expect(await screen.findByLabelText('Which head is it?')).toBeTruthy()
    expect(screen.queryByLabelText(/Wanted pitch/)).toBeNull()
    await userEvent.click(screen.getByText('single 10 coated, 12 in'))
    expect(screen.getByText(/It can go on all the same/).textContent).toContain('This is film')
  })

  it('asks how the drum is, and sends only what is not as usual', async () => {
    show('/drums/MQ-012/start?work=check&part=batter')
    await userEvent.click(await screen.findByText('not as usual'))
    expect(screen.queryByText('Wires')).toBeNull()
    await userEvent.click(screen.getByText('on the table, resonant up'))
    const [, resonant] = screen.getAllByRole('radio', { name: 'off' })
    await userEvent.click(resonant as HTMLElement)
    await userEvent.click(screen.getByText(/Start on the bench/))
    await waitFor(() => expect(posted()).toMatchObject({ begun: { up: 'resonant', resonant: 'off' } }))
  })

  it('says beside its button why it cannot start', async () => {
    answers['sheet'] = () => [200, aSheet([{ ...MESH, why_not: 'This drum is retired.' }])]
    show('/drums/MQ-012/start?work=mesh&part=batter')
    expect((await screen.findByRole('status')).textContent).toBe('This drum is retired.')
  })

  it('explains the order where the plain rule does not reach every rod', async () => {
    show('/drums/MQ-012/start?work=check&part=batter')
    await userEvent.click(await screen.findByText('every third rod'))
    expect(await screen.findByText(/It is run here as three laps/)).toBeTruthy()
  })

  it('asks for both heads, each with its own pitch, and which goes first', async () => {
    show('/drums/MQ-012/start?work=both&part=heads')
    await userEvent.click(await screen.findByText('batter first'))
    await userEvent.click(screen.getByText('by facing pair'))
    await userEvent.click(screen.getByText(/Start on the bench/))
    await waitFor(() =>
      expect(posted()).toMatchObject({
        part: 'heads',
        schools: [{ way: 'first_head', value: 'batter' }],
        cadence: 'pair',
        heads: [
          { side: 'batter', target: '210' },
          { side: 'resonant', target: '240' },
        ],
      }),
    )
  })

  it('does one thing otherwise than the workshop, with what speaks for and against it', async () => {
    show('/drums/MQ-012/start?work=new-head&part=batter')
    await userEvent.click(await screen.findByText('Workshop’s ways: 1 matters here'))
    await userEvent.click(screen.getByText('barely'))
    expect(screen.getByText(/But: Drops more/)).toBeTruthy()
    expect(screen.getByText('This time otherwise: barely')).toBeTruthy()
    await userEvent.click(screen.getByText(/Start on the bench/))
    await waitFor(() =>
      expect(posted()).toMatchObject({
        schools: [{ way: 'stretch', value: 'barely' }],
        heads: [{ side: 'batter' }],
      }),
    )
  })
})
