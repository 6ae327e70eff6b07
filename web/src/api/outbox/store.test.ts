import 'fake-indexeddb/auto'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Fresh } from './store'

const entry = (id: string): Fresh => ({
  job: 'j',
  user: 'ines',
  event: {
    id,
    device: 'd',
    seen: 0,
    made_at: '2026-01-01T00:00:00Z',
    v: 2,
    body: { kind: 'note', text: id },
  },
  state: 'waiting',
  message: '',
  seq: null,
})

beforeEach(async () => {
  vi.resetModules()
  const store = await import('./store')
  await store.drop((await store.kept()).map((each) => each.order))
  vi.resetModules()
})
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

/** A browser that never answers the first so many openings. */
function deaf(times: number): void {
  const original = indexedDB.open.bind(indexedDB)
  let asked = 0
  vi.spyOn(indexedDB, 'open').mockImplementation((...wanted) => {
    asked += 1
    return asked > times ? original(...wanted) : new IDBOpenDBRequest()
  })
}

it('keeps an entry though the browser closed the connection under it', async () => {
  const opened: IDBDatabase[] = []
  const original = indexedDB.open.bind(indexedDB)
  vi.spyOn(indexedDB, 'open').mockImplementation((...asked) => {
    const request = original(...asked)
    request.addEventListener('success', () => opened.push(request.result))
    return request
  })
  const store = await import('./store')
  await store.keep(entry('before'))
  opened.forEach((each) => each.close())
  await store.keep(entry('after'))
  expect((await store.kept()).map((each) => each.event.id)).toEqual(['before', 'after'])
})

it('keeps an entry once though the browser never answers the first opening', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  deaf(1)
  const store = await import('./store')
  const kept = store.keep(entry('asked twice'))
  await vi.advanceTimersByTimeAsync(store.ANSWER_MS)
  vi.useRealTimers()
  await kept
  expect((await store.kept()).map((each) => each.event.id)).toEqual(['asked twice'])
})

it('keeps an entry asked for twice only once', async () => {
  const store = await import('./store')
  const [first, second] = [await store.keep(entry('a')), await store.keep(entry('a'))]
  expect(second.order).toBe(first.order)
  expect(await store.kept()).toHaveLength(1)
})

it('gives way when the store is cleared under the page, and goes on', async () => {
  const store = await import('./store')
  await store.keep(entry('before'))
  await new Promise((done) => (indexedDB.deleteDatabase('red-tally').onsuccess = done))
  await store.keep(entry('after'))
  expect((await store.kept()).map((each) => each.event.id)).toEqual(['after'])
})

it('shows and sends an entry though this device’s store never answers', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  deaf(Infinity)
  const asked: string[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const { events } = (await request.json()) as { events: { id: string }[] }
    asked.push(...events.map((each) => each.id))
    const receipts = events.map(({ id }) => ({ id, standing: 'applied', seq: 1, code: '', message: '' }))
    return Response.json({ last_seq: 1, receipts })
  })
  const outbox = await import('./outbox')
  const begun = outbox.begin('ines')
  const recorded = outbox.record('j', 0, { kind: 'note', text: 'loose' })
  await vi.advanceTimersByTimeAsync(20_000)
  const [id] = await Promise.all([recorded, begun])
  expect(outbox.snapshot().entries).toMatchObject([{ state: 'sent', loose: true, event: { id } }])
  expect(asked).toEqual([id])
})

it('puts on the disk what it had not taken, once it answers again', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  deaf(2)
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('network')))
  const outbox = await import('./outbox')
  const recorded = outbox.record('j', 0, { kind: 'note', text: 'loose' })
  await vi.advanceTimersByTimeAsync(20_000)
  const id = await recorded
  expect(outbox.snapshot().entries).toMatchObject([{ loose: true }])
  vi.useRealTimers()
  await outbox.begin('ines')
  await vi.waitFor(() => expect(outbox.snapshot().entries[0]?.loose).toBeUndefined())
  expect((await (await import('./store')).kept()).map((each) => each.event.id)).toEqual([id])
})
