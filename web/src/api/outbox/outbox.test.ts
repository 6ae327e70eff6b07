import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type * as outboxModule from './outbox'
import type { Body } from './store'

type Outbox = typeof outboxModule
const note = (text: string): Body => ({ kind: 'note', text })

interface Sent {
  id: string
  body: Body
}

let answer: (events: Sent[]) => Response | Promise<Response>
const sent: Sent[][] = []
const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const taken = (events: Sent[]) =>
  json(200, {
    last_seq: 9,
    receipts: events.map((e, n) => ({ id: e.id, standing: 'applied', seq: n + 1, code: '', message: '' })),
  })

async function fresh(): Promise<Outbox> {
  vi.resetModules()
  return import('./outbox')
}
const settled = (outbox: Outbox, test: () => boolean) =>
  vi.waitFor(() => expect(test()).toBe(true), { timeout: 4000 }).then(() => outbox.snapshot())

beforeEach(() => {
  sent.length = 0
  answer = taken
  vi.stubGlobal('fetch', async (request: Request) => {
    const { events, sent_at } = (await request.json()) as { events: Sent[]; sent_at: string }
    expect(Math.abs(Date.parse(sent_at) - Date.now()), 'the clock at sending').toBeLessThan(60_000)
    sent.push(events)
    return answer(events)
  })
})
afterEach(async () => {
  vi.unstubAllGlobals()
  const store = await import('./store')
  await store.drop((await store.kept()).map((entry) => entry.order))
})

describe('the outbox', () => {
  it('sends in order and lets go of what was taken', async () => {
    const outbox = await fresh()
    await outbox.begin('ines')
    for (const text of ['a', 'b', 'c']) await outbox.record('j', 0, note(text))
    await settled(outbox, () => outbox.snapshot().entries.every((e) => e.state === 'sent'))
    expect(sent.flat().map((e) => (e.body as { text: string }).text)).toEqual(['a', 'b', 'c'])
    outbox.caughtUp('j', 99)
    expect(outbox.snapshot().entries).toEqual([])
    await vi.waitFor(async () => expect(await (await import('./store')).kept()).toEqual([]))
  })

  it('keeps what was sent until the screen has what the server says with it, through a reload too', async () => {
    let seq = 0
    answer = (events) =>
      json(200, { receipts: events.map((e) => ({ id: e.id, standing: 'applied', seq: (seq += 1) })) })
    const first = await fresh()
    await first.begin('ines')
    await first.record('j', 0, note('a'))
    await first.record('j', 0, note('b'))
    await settled(first, () => first.snapshot().entries.every((e) => e.state === 'sent'))
    const second = await fresh()
    await second.begin('ines')
    expect(second.snapshot().entries.map((e) => [e.state, e.seq])).toEqual([
      ['sent', 1],
      ['sent', 2],
    ])
    second.caughtUp('j', 1)
    await second.flush() // what is read from the disk again brings nothing back
    expect(second.snapshot().entries.map((e) => e.seq)).toEqual([2])
    await vi.waitFor(async () => expect(await (await import('./store')).kept()).toHaveLength(1))
  })

  it('keeps entries through a dead network and a reload, and sends them with the same ids', async () => {
    answer = () => Promise.reject(new TypeError('network'))
    const first = await fresh()
    await first.begin('ines')
    const id = await first.record('j', 0, note('kept'))
    await settled(first, () => first.snapshot().link === 'no-network')
    answer = taken
    const second = await fresh()
    await second.begin('ines')
    await settled(second, () => sent.flat().filter((e) => e.id === id).length >= 2)
    expect((await (await import('./store')).kept()).map((e) => e.state)).toEqual(['sent'])
  })

  it('waits for the sign-in when the session ended, and does not try on its own', async () => {
    answer = () => json(401, { code: 'signed_out', message: '', fields: {}, kept: '' })
    const outbox = await fresh()
    await outbox.begin('ines')
    await outbox.record('j', 0, note('a'))
    const now = await settled(outbox, () => outbox.snapshot().link === 'signed-out')
    expect(now.entries.map((e) => e.state)).toEqual(['waiting'])
  })

  it('refuses only the one bad entry of a batch, with the reason', async () => {
    answer = (events) => {
      const bad = events.some((e) => (e.body as { text: string }).text === 'bad')
      return bad
        ? json(422, { code: 'invalid', message: 'Use fewer words.', fields: {}, kept: '' })
        : taken(events)
    }
    const outbox = await fresh()
    for (const text of ['a', 'bad', 'c']) await outbox.record('j', 0, note(text))
    await outbox.begin('')
    const store = await import('./store')
    for (const entry of await store.kept()) await store.change([{ ...entry, user: 'ines' }])
    await outbox.begin('ines')
    const now = await settled(outbox, () => outbox.snapshot().entries.every((e) => e.state !== 'waiting'))
    expect(now.entries.find((e) => e.state === 'refused')?.message).toBe('Use fewer words.')
    expect(now.entries.filter((e) => e.state === 'sent')).toHaveLength(2)
  })

  it('never sends one person’s entries in another’s name', async () => {
    const outbox = await fresh()
    answer = () => Promise.reject(new TypeError('network'))
    await outbox.begin('ines')
    await outbox.record('j', 0, note('hers'))
    sent.length = 0
    answer = taken
    await outbox.begin('bram')
    await outbox.flush()
    expect(sent).toEqual([])
    expect(outbox.snapshot().entries).toHaveLength(1)
  })
})
