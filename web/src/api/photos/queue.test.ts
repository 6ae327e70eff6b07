// @vitest-environment node
// The test page's own Blob cannot be put into a form that is sent.
import { beforeEach, afterEach, expect, it, vi } from 'vitest'
import 'fake-indexeddb/auto'
import type * as queueModule from './queue'

type Queue = typeof queueModule

let answer: (form: FormData) => Response | Promise<Response>
const sent: FormData[] = []
const of = { tag: 'MQ-016', job: 'j', about: 'mark' }
const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const fresh = (): Promise<Queue> => {
  vi.resetModules()
  return import('./queue')
}
const settled = (queue: Queue, done: () => boolean) =>
  vi.waitFor(() => {
    if (!done()) throw new Error(JSON.stringify(queue.snapshot().map((each) => each.state)))
  }, 20_000)

beforeEach(() => {
  sent.length = 0
  answer = () => json(200, { id: 'x' })
  vi.stubGlobal('location', { origin: 'http://localhost' })
  vi.stubGlobal('document', { cookie: '' })
  vi.stubGlobal('fetch', async (request: Request) => {
    const form = await request.formData()
    sent.push(form)
    return answer(form)
  })
})
afterEach(async () => {
  vi.unstubAllGlobals()
  const store = await import('./store')
  for (const photo of await store.kept()) await store.drop(photo.id)
})

it('keeps a photo through a dead network and a reload, and sends it with the same id', async () => {
  answer = () => Promise.reject(new TypeError('network'))
  const first = await fresh()
  await first.beginPhotos('ines')
  await first.addPhoto(of, new Blob(['a picture']))
  await settled(first, () => sent.length > 0)
  expect(first.snapshot()).toHaveLength(1)
  answer = () => json(200, { id: 'x' })
  const second = await fresh()
  await second.beginPhotos('ines')
  await settled(second, () => second.snapshot().length === 0)
  expect(new Set(sent.map((form) => form.get('id'))).size).toBe(1)
  expect(sent.at(-1)?.get('job_id')).toBe('j')
  expect(await (sent.at(-1)?.get('photo') as File).text()).toBe('a picture')
  expect(await (await import('./store')).kept()).toEqual([])
})

it('says why one was refused, keeps it, and sends the others', async () => {
  answer = () =>
    sent.length === 1
      ? json(422, { code: 'no_photo', message: 'This cannot be read as a photo.', fields: {}, kept: '' })
      : json(200, { id: 'x' })
  const queue = await fresh()
  await queue.beginPhotos('ines')
  await queue.addPhoto(of, new Blob(['a']))
  await queue.addPhoto(of, new Blob(['b']))
  await settled(queue, () => queue.snapshot().length === 1 && queue.snapshot()[0]?.state === 'refused')
  expect(queue.snapshot()[0]?.message).toBe('This cannot be read as a photo.')
  await queue.letGo(queue.snapshot()[0]?.id ?? '')
  expect(queue.snapshot()).toEqual([])
})

it('never sends one person’s photos in another’s name', async () => {
  answer = () => Promise.reject(new TypeError('network'))
  const queue = await fresh()
  await queue.beginPhotos('ines')
  await queue.addPhoto(of, new Blob(['hers']))
  await settled(queue, () => sent.length > 0)
  sent.length = 0
  answer = () => json(200, { id: 'x' })
  await queue.beginPhotos('bram')
  await queue.addPhoto(of, new Blob(['his']))
  await settled(queue, () => queue.snapshot().length === 1)
  expect(await Promise.all(sent.map((form) => (form.get('photo') as File).text()))).toEqual(['his'])
})
