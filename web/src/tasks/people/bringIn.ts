import { api, ApiError, unwrap, type Schemas } from '../../api/client'

export type BroughtIn = Schemas['BroughtIn']

/** How far a file is: bytes that are there, of how many; `reading` once all are, while the server takes them in. */
export interface Progress {
  at: number
  of: number
  reading: boolean
}

const TRIES = 4
const PAUSE_MS = 1500

/** What this device knows of a file, as figures: the same file chosen again goes on where it was. Not a secret; plain http has no digests. */
export function keyOf({ name, size, lastModified }: File): string {
  let mixed = 0x811c9dc5 // FNV-1a, 32 bits
  for (const byte of new TextEncoder().encode(name)) mixed = Math.imul(mixed ^ byte, 0x01000193) >>> 0
  return [mixed, size, lastModified].map((each) => each.toString(16).padStart(8, '0')).join('')
}

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms))

/** Tried a few times: the network of a shop breaks for a moment. */
async function patiently<T>(ask: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await ask()
    } catch (error) {
      const full = error instanceof ApiError && error.status === 507
      if (tries === TRIES || !(error instanceof ApiError) || !error.unreachable || full) throw error
      await pause(PAUSE_MS * tries)
    }
  }
}

/** Send an archive piece by piece, then have it taken in. */
export async function bringIn(file: File, tell: (progress: Progress) => void): Promise<BroughtIn> {
  const of = { key: keyOf(file), size: file.size }
  let { at, piece } = await patiently(() => unwrap(api.POST('/api/archive/upload', { body: of })))
  tell({ at, of: file.size, reading: false })
  while (at < file.size) {
    const next = await file.slice(at, at + piece).arrayBuffer()
    const begins = at
    ;({ at, piece } = await patiently(() =>
      unwrap(
        api.PUT('/api/archive/upload', {
          params: { query: { ...of, at: begins } },
          body: next as never,
          bodySerializer: (body: unknown) => body as BodyInit,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ),
    ))
    tell({ at, of: file.size, reading: false })
  }
  tell({ at, of: file.size, reading: true })
  return unwrap(api.POST('/api/archive/upload/take', { body: of }))
}
