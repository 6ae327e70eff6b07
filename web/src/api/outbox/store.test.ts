import 'fake-indexeddb/auto'
import { expect, it, vi } from 'vitest'
import type { Entry } from './store'

const entry = (id: string): Omit<Entry, 'order'> => ({
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
