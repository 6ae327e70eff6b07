import { expect, it, vi } from 'vitest'
import { inSteps } from './steps'

/** Bytes as a network hands them on: cut anywhere. */
const lines = (text: string, at: number) =>
  new ReadableStream<Uint8Array>({
    start(controller) {
      const bytes = new TextEncoder().encode(text)
      for (let n = 0; n < bytes.length; n += at) controller.enqueue(bytes.slice(n, n + at))
      controller.close()
    },
  })

it.each([1, 7, 1000])(
  'tells each step and ends with what it comes to, cut after every %d bytes',
  async (at) => {
    const onRead = vi.fn()
    const seen = await inSteps(lines('{"read":500}\n{"read":1000}\n{"seen":{"good":"größer"}}\n', at), onRead)
    expect(seen).toEqual({ good: 'größer' })
    expect(onRead.mock.calls).toEqual([[500], [1000]])
  },
)

it('a refusal on the way is one, with its own words', async () => {
  const error = { code: 'too_long', message: 'Split it.', fields: {}, kept: '' }
  const asked = inSteps(lines(`{"read":500}\n${JSON.stringify({ error, status: 422 })}\n`, 9), vi.fn())
  await expect(asked).rejects.toMatchObject({ status: 422, message: 'Split it.' })
})

it('an answer that breaks off is no answer', async () => {
  await expect(inSteps(lines('{"read":500}\n', 5), vi.fn())).rejects.toMatchObject({ status: 0 })
})
