import type { Query, QueryPersister } from '@tanstack/react-query'
import { ApiError, NOT_SEEN } from '../client'
import { keys } from '../keys'
import * as store from './store'

/** With something to show meanwhile, no answer is waited for longer. */
const PATIENCE_MS = 4000
/** An answer that says the same again moves the hour of its copy no oftener. */
const AGAIN_MS = 60_000
const KEPT_MS = 30 * 24 * 3600 * 1000
/** The name of the service worker's own box for pictures. */
const PHOTOS = 'red-tally-photos-seen'

const SESSION = 'session'
/** What is not for the device to keep: who may do what, and who did. */
const NEVER = new Set<unknown>(
  [keys.people, keys.room, keys.signInWays, keys.changes({}), keys.kept, keys.pulse].map((key) => key[0]),
)

let whose = ''
/** The question by its hash, and when the answer that shows was given; only while the server gives none. */
const asOf = new Map<string, number>()
const noted = new Map<string, { data: unknown; at: number }>()
const hangs = new Map<string, Promise<unknown>>()
/** Questions without an answer yet and without a copy. */
const unanswered = new Set<string>()
let last: Promise<boolean> = Promise.resolve(true)
const listeners = new Set<() => void>()

export const moments = (): ReadonlyMap<string, number> => asOf
export function subscribe(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}
const tell = (): void => listeners.forEach((listener) => listener())

type Asked = Pick<Query, 'queryHash' | 'queryKey'>
const named = ({ queryHash, queryKey }: Asked): string =>
  queryKey[0] === keys.session[0] ? SESSION : `${whose} ${queryHash}`
const mayKeep = ({ queryKey }: Asked): boolean => !NEVER.has(queryKey[0])

/** Copies are one person's in one workshop; from here on these. */
export function seenBy(keptFor: string): void {
  whose = keptFor
}

async function clear(spared?: (key: string) => boolean): Promise<void> {
  noted.clear()
  await last
  await store.clear(spared).catch(() => undefined)
  if (typeof caches !== 'undefined') await caches.delete(PHOTOS).catch(() => undefined)
}
/** Let go of every copy: who was in has left. */
export const forget = (): Promise<void> => clear()
/** Let go of what work on the bench, along the shelf and before a show can go on without: the device needs the room for what is entered on it. */
export const makeWay = (): Promise<void> =>
  clear(
    (key) =>
      key === SESSION ||
      [keys.job(''), keys.walk(''), keys.callout('')].some(([first]) => key.includes(` ["${first}"`)),
  )

export const tidy = (): Promise<void> => store.prune(Date.now() - KEPT_MS).catch(() => undefined)

/** The server answered: keep a copy. */
export function note(query: Query): void {
  if (asOf.has(query.queryHash) || !mayKeep(query)) return
  const { data } = query.state
  const before = noted.get(query.queryHash)
  const at = Date.now()
  if (before && before.data === data && at - before.at < AGAIN_MS) return
  noted.set(query.queryHash, { data, at })
  const copy = { key: named(query), at, data }
  const written = store.put(copy).then(
    () => true,
    () => false,
  )
  last = Promise.all([last, written]).then(([, done]) => done)
}

/** When the copies noted so far are on the disk: whether the newest is. */
export const written = (): Promise<boolean> => last

async function known(query: Query): Promise<{ data: unknown; at: number } | undefined> {
  if (query.state.data !== undefined)
    return {
      data: query.state.data,
      at: noted.get(query.queryHash)?.at ?? asOf.get(query.queryHash) ?? query.state.dataUpdatedAt,
    }
  return mayKeep(query) ? store.get(named(query)).catch(() => undefined) : undefined
}

const silent = (error: unknown): boolean =>
  error instanceof ApiError && (error.status === 0 || [502, 503, 504].includes(error.status))

const LATE = Symbol('late')
const late = (): Promise<typeof LATE> =>
  new Promise((resolve) => setTimeout(() => resolve(LATE), PATIENCE_MS))

/**
 * Ask the server; where it does not answer, show what it said last, in this page or in one before, and remember of when that is.
 * What it refuses is refused: a copy never stands in for a no.
 */
export const askOrRemember: QueryPersister = async (ask, context, query) => {
  const hash = query.queryHash
  // While the network is dead but not gone, requests hang: a second one for the same would only take a connection from the entries.
  const hanging = asOf.has(hash) || unanswered.has(hash) ? hangs.get(hash) : undefined
  const asked = hanging ?? Promise.resolve(ask(context))
  hangs.set(hash, asked)
  const over = (): void => {
    if (hangs.get(hash) === asked) hangs.delete(hash)
  }
  asked.then(over, over)
  const answer = (asked as Promise<Awaited<ReturnType<typeof ask>>>).then((data) => {
    unanswered.delete(hash)
    if (asOf.delete(hash)) tell()
    return data
  })
  const first = await Promise.race([answer.catch((error: unknown) => ({ error })), late()])
  const failed = typeof first === 'object' && first !== null && 'error' in first ? first.error : null
  if (first !== LATE && failed === null) return answer
  if (failed !== null && !silent(failed)) throw failed
  const before = await known(query as Query)
  // One that comes late after all is taken.
  if (first === LATE)
    answer.then(
      (data) => query.setData(data as never),
      () => undefined,
    )
  if (!before) {
    if (first === LATE) unanswered.add(hash)
    throw first === LATE || (failed instanceof ApiError && failed.status === 0)
      ? new ApiError(0, NOT_SEEN)
      : failed
  }
  if (!asOf.has(hash)) {
    asOf.set(hash, before.at)
    tell()
  }
  return before.data as Awaited<ReturnType<typeof ask>>
}
