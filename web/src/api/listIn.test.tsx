import { act, renderHook, waitFor } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import { useListIn } from './listIn'

/** A server that says a line whenever it is told to, and notices who goes away. */
function telling() {
  const pens: ReadableStreamDefaultController<Uint8Array>[] = []
  const gone = vi.fn()
  vi.stubGlobal('fetch', (request: Request) => {
    const body = new ReadableStream<Uint8Array>({ start: (controller) => void pens.push(controller) })
    request.signal.addEventListener('abort', () => {
      gone()
      pens.at(-1)?.error(new DOMException('stopped', 'AbortError'))
    })
    return Promise.resolve(new Response(body, { headers: { 'Content-Type': 'application/x-ndjson' } }))
  })
  return {
    gone,
    /** To the request that came as the `nth`. */
    say: async (nth: number, line: object) => {
      await waitFor(() => expect(pens).toHaveLength(nth))
      act(() => pens.at(-1)?.enqueue(new TextEncoder().encode(`${JSON.stringify(line)}\n`)))
    },
  }
}

afterEach(() => vi.unstubAllGlobals())

const file = new File(['tag\n'], 'cupboard.csv')
const seen = { good: 1, bad: 0, new: 1, changed: 0, same: 0, problems: [], shown: [], taken: false }

it('looks, takes, and tells both while they go on', async () => {
  const server = telling()
  const onTaken = vi.fn()
  const { result } = renderHook(() => useListIn('shelf', onTaken))
  act(() => result.current.look(file))
  await waitFor(() => expect(result.current.doing).toEqual({ what: 'look', read: 0 }))
  await server.say(1, { read: 500 })
  await waitFor(() => expect(result.current.doing?.read).toBe(500))
  await server.say(1, { seen })
  await waitFor(() => expect(result.current.doing).toBeNull())
  expect(result.current.seen).toEqual(seen)
  expect(onTaken).not.toHaveBeenCalled()
  act(() => result.current.take())
  await server.say(2, { seen: { ...seen, taken: true } })
  await waitFor(() => expect(result.current.seen?.taken).toBe(true))
  expect(onTaken).toHaveBeenCalledOnce()
})

it('stopped, it leaves the server and says so; what was looked at stays', async () => {
  const server = telling()
  const { result } = renderHook(() => useListIn('shelf', vi.fn()))
  act(() => result.current.look(file))
  await server.say(1, { seen })
  await waitFor(() => expect(result.current.seen).toEqual(seen))
  act(() => result.current.take())
  await server.say(2, { read: 500 })
  await waitFor(() => expect(result.current.doing?.read).toBe(500))
  act(() => result.current.stop())
  await waitFor(() => expect(result.current.stopped).toBe('take'))
  expect(server.gone).toHaveBeenCalledOnce()
  expect([result.current.doing, result.current.error, result.current.seen]).toEqual([null, null, seen])
})

it('a network that goes is told in words, and what is there can be looked at again', async () => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('gone')))
  const { result } = renderHook(() => useListIn('drums', vi.fn()))
  act(() => result.current.look(file))
  await waitFor(() => expect(result.current.error?.message).toContain('network'))
})
