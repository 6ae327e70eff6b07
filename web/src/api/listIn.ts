import { useRef, useState } from 'react'
import { api, ApiError, unwrap, type Schemas } from './client'
import { inSteps } from './steps'

interface Lists {
  drums: Schemas['DrumsSeen']
  shelf: Schemas['ListSeen']
}
export type Of = keyof Lists

const WHERE = {
  drums: { look: '/api/register/sheet/look', take: '/api/register/sheet' },
  shelf: { look: '/api/shelf/sheet/look', take: '/api/shelf/sheet' },
} as const

type Doing = 'look' | 'take'

export interface ListIn<Seen> {
  file: File | null
  /** What the list comes to, as far as it was looked at or taken. */
  seen: Seen | null
  /** What goes on, and how many rows were read so far. */
  doing: { what: Doing; read: number } | null
  stopped: Doing | null
  error: ApiError | null
  look: (file: File, more?: Record<string, string>) => void
  take: () => void
  stop: () => void
}

/** A list brought in: looked at first, then taken; told how far it is, and stopped where somebody says so. */
export function useListIn<K extends Of>(of: K, onTaken: () => void): ListIn<Lists[K]> {
  const [file, setFile] = useState<File | null>(null)
  const [more, setMore] = useState<Record<string, string>>({})
  const [seen, setSeen] = useState<Lists[K] | null>(null)
  const [doing, setDoing] = useState<ListIn<Lists[K]>['doing']>(null)
  const [stopped, setStopped] = useState<Doing | null>(null)
  const [error, setError] = useState<ApiError | null>(null)
  const running = useRef<AbortController | null>(null)

  const run = async (what: Doing, sheet: File, fields: Record<string, string>) => {
    running.current?.abort()
    const mine = new AbortController()
    running.current = mine
    setDoing({ what, read: 0 })
    setStopped(null)
    setError(null)
    const body = new FormData()
    body.append('sheet', sheet)
    for (const [name, value] of Object.entries(fields)) body.append(name, value)
    try {
      const lines = await unwrap(
        api.POST(WHERE[of][what], {
          body: body as never,
          bodySerializer: (form: unknown) => form as FormData,
          headers: { Accept: 'application/x-ndjson' },
          parseAs: 'stream',
          signal: mine.signal,
        }),
      )
      const found = await inSteps<Lists[K]>(lines as unknown as ReadableStream<Uint8Array>, (read) => {
        if (running.current === mine) setDoing({ what, read })
      })
      if (found.taken) onTaken()
      if (running.current === mine) setSeen(found)
    } catch (caught) {
      if (running.current !== mine) return
      if (mine.signal.aborted) setStopped(what)
      else
        setError(
          caught instanceof ApiError
            ? caught
            : new ApiError(0, { code: 'cut_off', message: CUT_OFF[what], fields: {}, kept: '' }),
        )
    } finally {
      if (running.current === mine) {
        running.current = null
        setDoing(null)
      }
    }
  }

  return {
    file,
    seen,
    doing,
    stopped,
    error,
    look: (sheet, fields = {}) => {
      setFile(sheet)
      setMore(fields)
      if (sheet !== file) setSeen(null)
      void run('look', sheet, fields)
    },
    take: () => {
      if (file) void run('take', file, more)
    },
    stop: () => running.current?.abort(),
  }
}

const CUT_OFF = {
  look: 'The network went while the list was read, or the file has changed. Choose it again.',
  take: 'The network went while the list was taken, or the file has changed. Choose it again: it says what is there already.',
}
