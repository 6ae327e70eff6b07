import { QueryCache, QueryClient } from '@tanstack/react-query'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiError } from '../client'
import { askOrRemember, forget, makeWay, moments, note, seenBy, written } from './seen'
import * as store from './store'

const said = { code: 'x', message: 'No.', fields: {}, kept: '' }
const silence = () => Promise.reject(new ApiError(0, said))

/** A page: nothing in memory, the device's disk as it is. */
const page = () =>
  new QueryClient({
    queryCache: new QueryCache({ onSuccess: (_, query) => note(query as never) }),
    defaultOptions: { queries: { persister: askOrRemember, retry: false, networkMode: 'always' } },
  })
const ask = (
  on: QueryClient,
  answer: () => Promise<unknown>,
  key: readonly unknown[] = ['sheet', 'MQ-001'],
) => on.fetchQuery({ queryKey: key, queryFn: answer, staleTime: 0 })

beforeEach(() => seenBy('ines@1'))
afterEach(async () => {
  vi.useRealTimers()
  await forget()
})

describe('what was seen before', () => {
  it('shows without network in a page opened anew, with its age, and is renewed by the next answer', async () => {
    const before = Date.now()
    await ask(page(), () => Promise.resolve({ name: 'Gannet' }))
    await written()
    const later = page()
    expect(await ask(later, silence)).toEqual({ name: 'Gannet' })
    const [at] = moments().values()
    expect(at).toBeGreaterThanOrEqual(before)
    expect(await ask(later, () => Promise.resolve({ name: 'Gannet II' }))).toEqual({ name: 'Gannet II' })
    expect(moments().size).toBe(0)
  })

  it('stays in sight when the network goes under an open page', async () => {
    const open = page()
    await ask(open, () => Promise.resolve([1]))
    expect(await ask(open, silence)).toEqual([1])
    expect(moments().size).toBe(1)
  })

  it('never stands in for a no', async () => {
    const open = page()
    await ask(open, () => Promise.resolve([1]))
    await written()
    for (const status of [401, 403, 404, 500])
      await expect(ask(open, () => Promise.reject(new ApiError(status, said)))).rejects.toThrow('No.')
  })

  it('is another person’s or another workshop’s never', async () => {
    await ask(page(), () => Promise.resolve('hers'))
    await written()
    seenBy('bram@1')
    await expect(ask(page(), silence)).rejects.toThrow('not opened on this device before')
    seenBy('ines@2')
    await expect(ask(page(), silence)).rejects.toThrow('not opened on this device before')
  })

  it('does not keep who may do what, nor who did', async () => {
    await ask(page(), () => Promise.resolve('names'), ['people'])
    await ask(page(), () => Promise.resolve('deeds'), ['changes', {}])
    await written()
    await expect(ask(page(), silence, ['people'])).rejects.toThrow()
    await expect(ask(page(), silence, ['changes', {}])).rejects.toThrow()
  })

  it('is shown when the answer is long in coming, and the answer is taken when it comes', async () => {
    await ask(page(), () => Promise.resolve('old'))
    await written()
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    let come: (data: string) => void = () => undefined
    const open = page()
    const shown = ask(open, () => new Promise<string>((resolve) => (come = resolve)))
    await vi.advanceTimersByTimeAsync(4000)
    vi.useRealTimers()
    expect(await shown).toBe('old')
    expect(moments().size).toBe(1)
    // Asked again meanwhile, it takes no second connection.
    const second = vi.fn(() => Promise.resolve('never'))
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const again = ask(open, second)
    await vi.advanceTimersByTimeAsync(4000)
    vi.useRealTimers()
    expect(await again).toBe('old')
    expect(second).not.toHaveBeenCalled()
    come('new')
    await vi.waitFor(() => expect(open.getQueryData(['sheet', 'MQ-001'])).toBe('new'))
    expect(moments().size).toBe(0)
  })

  it('says after four seconds that what was never seen needs the network, and takes the answer when it comes', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    let come: (data: string) => void = () => undefined
    const open = page()
    const asked = vi.fn(() => new Promise<string>((resolve) => (come = resolve)))
    const shown = ask(open, asked).catch((error: unknown) => error)
    await vi.advanceTimersByTimeAsync(4000)
    expect(await shown).toMatchObject({ notSeen: true })
    // Asked again meanwhile, it takes no second connection.
    const again = ask(open, asked).catch((error: unknown) => error)
    await vi.advanceTimersByTimeAsync(4000)
    expect(await again).toMatchObject({ notSeen: true })
    vi.useRealTimers()
    expect(asked).toHaveBeenCalledTimes(1)
    come('late')
    await vi.waitFor(() => expect(open.getQueryData(['sheet', 'MQ-001'])).toBe('late'))
  })

  it('makes way for entries, but for the session, the jobs, the walks and the call-outs', async () => {
    for (const key of [
      ['session'],
      ['job', 'a'],
      ['walk', 'b'],
      ['callout', 'c'],
      ['sheet', 'MQ-001'],
      ['today'],
    ])
      await ask(page(), () => Promise.resolve(1), key)
    await makeWay()
    for (const key of [['session'], ['job', 'a'], ['walk', 'b'], ['callout', 'c']])
      expect(await ask(page(), silence, key)).toBe(1)
    await expect(ask(page(), silence, ['today'])).rejects.toThrow()
  })

  it('is let go after a month, and the oldest of too many', async () => {
    for (let n = 0; n < 605; n += 1) await store.put({ key: `k${n}`, at: n, data: n })
    await store.prune(0)
    expect(await store.get('k4')).toBeUndefined()
    expect(await store.get('k5')).toBeDefined()
    await store.prune(604)
    expect(await store.get('k603')).toBeUndefined()
    expect(await store.get('k604')).toBeDefined()
  })
})
