import { ApiError, NO_ANSWER, type ErrorBody } from './client'

type Step<Seen> = { read: number } | { seen: Seen } | { error: ErrorBody; status: number }

/** What a server says line by line (`application/x-ndjson`) of a list it is reading: how far it is, and at last what the list comes to. */
export async function inSteps<Seen>(
  lines: ReadableStream<Uint8Array>,
  onRead: (rows: number) => void,
): Promise<Seen> {
  const reader = lines.getReader()
  const text = new TextDecoder()
  let waiting = ''
  for (;;) {
    const { done, value } = await reader.read()
    waiting += done ? text.decode() : text.decode(value, { stream: true })
    const whole = waiting.split('\n')
    waiting = whole.pop() ?? ''
    for (const line of whole.filter(Boolean)) {
      const step = JSON.parse(line) as Step<Seen>
      if ('seen' in step) return step.seen
      if ('error' in step) throw new ApiError(step.status, step.error)
      onRead(step.read)
    }
    if (done) throw new ApiError(0, NO_ANSWER)
  }
}
