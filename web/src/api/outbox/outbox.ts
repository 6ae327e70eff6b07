import { isOf } from '../../domain/keptFor'
import { newId } from '../../domain/ids'
import { api, ApiError, unwrap, type Schemas } from '../client'
import { insist } from '../device'
import { written } from '../seen'
import * as store from './store'
import { isOfBench, type Body, type CalloutBody, type Entry, type Fresh, type WalkBody } from './store'

/** How the last attempt to send went. */
export type Link = 'fine' | 'no-network' | 'signed-out'

export interface Outbox {
  entries: readonly Entry[]
  link: Link
}

const RETRY_MS = [1000, 2000, 4000, 8000] as const
const BATCH = 100
/** The shapes of the entries this app makes. */
const SHAPE = 2
const WALK_SHAPE = 1
const CALLOUT_SHAPE = 1

let now: Outbox = { entries: [], link: 'fine' }
let user = ''
let failures = 0
let timer: ReturnType<typeof setTimeout> | undefined
let sending = false
const listeners = new Set<() => void>()
const tabs = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('red-tally-outbox')

function set(next: Partial<Outbox>): void {
  now = { ...now, ...next }
  listeners.forEach((listener) => listener())
}

export const snapshot = (): Outbox => now
export function subscribe(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** This device's name for itself: one per tab, so that two tabs are two pairs of hands. */
export const device = ((): string => {
  const made = newId()
  try {
    const known = sessionStorage.getItem('red-tally-device') ?? made
    sessionStorage.setItem('red-tally-device', known)
    return known
  } catch {
    return made
  }
})()

/** What is on disk, or nothing when the browser's store fails: then memory alone counts. */
const onDisk = (): Promise<Entry[] | null> => store.kept().catch(() => null)

/** Up to which number each job's screen has caught up with the server. */
const caught = new Map<string, number>()
const isTold = (e: Entry): boolean => e.state === 'sent' && (e.seq ?? 0) <= (caught.get(e.job) ?? -1)

/** Whether the disk answered. */
async function reload(): Promise<boolean> {
  const disk = await onDisk()
  if (!disk) return false
  const sent = now.entries.filter((e) => e.state === 'sent')
  const gone = new Set(sent.map((e) => e.event.id))
  const left = disk.filter((e) => !gone.has(e.event.id) && !isTold(e))
  const known = new Set(left.map((e) => e.event.id))
  const newest = disk.at(-1)?.order ?? 0
  // One recorded while the disk was being read, or that the disk never took, must not be lost from view.
  const fresh = now.entries.filter(
    (e) =>
      !known.has(e.event.id) && (e.loose ? e.state !== 'sent' : e.state === 'waiting' && e.order > newest),
  )
  set({ entries: [...sent, ...left, ...fresh] })
  return true
}

/** How long one that was sent waits for its job to be opened again; copies of jobs go after as long. */
const SENT_MS = 30 * 24 * 3600 * 1000

/** Begin for a person in a workshop: take up what an earlier page left, and send it. */
export async function begin(keptFor: string): Promise<void> {
  user = keptFor
  await reload()
  const before = new Date(Date.now() - SENT_MS).toISOString()
  const old = now.entries.filter((entry) => entry.state === 'sent' && entry.event.made_at < before)
  if (old.length) {
    set({ entries: now.entries.filter((entry) => !old.includes(entry)) })
    await drop(old)
  }
  void flush()
}

/** Onto the disk, so that nothing takes it away; when the browser's store fails, held in memory and said to be loose. */
async function hold(entry: Fresh): Promise<Entry> {
  return insist(() => store.keep(entry)).catch(() => ({ ...entry, order: Infinity, loose: true }))
}

const made = (seen: number) => ({ id: newId(), device, seen, made_at: new Date().toISOString() })

async function put(entry: Fresh): Promise<string> {
  const held = await hold(entry)
  set({ entries: [...now.entries, held] })
  tabs?.postMessage('changed')
  void flush()
  return entry.event.id
}

/** Record something on a job. It is on disk before it shows; it shows and is sent though the disk should fail. */
export const record = (job: string, seen: number, body: Body): Promise<string> =>
  put({
    job,
    user,
    event: { ...made(seen), v: SHAPE, body },
    state: 'waiting',
    message: '',
    seq: null,
  })

/** Record something seen on a walk, kept and sent in the same way. */
export const recordSeen = (walk: string, seen: number, body: WalkBody): Promise<string> =>
  put({
    log: 'walk',
    job: walk,
    user,
    event: { ...made(seen), v: WALK_SHAPE, body },
    state: 'waiting',
    message: '',
    seq: null,
  })

/** Record something on a call-out, kept and sent in the same way. */
export const recordCallout = (callout: string, seen: number, body: CalloutBody): Promise<string> =>
  put({
    log: 'callout',
    job: callout,
    user,
    event: { ...made(seen), v: CALLOUT_SHAPE, body },
    state: 'waiting',
    message: '',
    seq: null,
  })

/**
 * The screen has caught up with the server: sent entries up to this number are no longer needed. They go off the disk once what the
 * server said is there, or a page opened again without network would show less than was entered.
 */
export function caughtUp(job: string, seq: number): void {
  caught.set(job, Math.max(seq, caught.get(job) ?? -1))
  const told = now.entries.filter(isTold)
  if (!told.length) return
  set({ entries: now.entries.filter((e) => !told.includes(e)) })
  void written().then((done) => (done ? drop(told) : undefined))
}

/** Put away a refused entry after the person has seen why. */
export async function putAway(entry: Entry): Promise<void> {
  await drop([entry])
  set({ entries: now.entries.filter((each) => each.event.id !== entry.event.id) })
  tabs?.postMessage('changed')
}

/** Off the disk; one that stays there is sent again later, and taken as the repeat it is. */
async function drop(entries: Entry[]): Promise<void> {
  const orders = entries.filter((entry) => !entry.loose).map((entry) => entry.order)
  if (orders.length) await store.drop(orders).catch(() => undefined)
}

function again(): void {
  clearTimeout(timer)
  const wait = RETRY_MS[Math.min(failures, RETRY_MS.length - 1)] ?? 8000
  failures += 1
  timer = setTimeout(() => void flush(), wait)
}

async function settle(batch: Entry[], receipts: Schemas['Receipt'][]): Promise<void> {
  const byId = new Map(receipts.map((receipt) => [receipt.id, receipt]))
  const changed: Entry[] = []
  const outcome = new Map<string, Entry>()
  for (const entry of batch) {
    const receipt = byId.get(entry.event.id)
    if (!receipt) continue
    const settled: Entry =
      receipt.standing === 'refused'
        ? { ...entry, state: 'refused', message: receipt.message ?? '' }
        : { ...entry, state: 'sent', seq: receipt.seq ?? null }
    outcome.set(entry.event.id, settled)
    if (!entry.loose) changed.push(settled)
  }
  // One whose change stays off the disk is sent again later, and taken as the repeat it is.
  await store.change(changed).catch(() => undefined)
  set({ entries: now.entries.map((entry) => outcome.get(entry.event.id) ?? entry), link: 'fine' })
}

async function refuse(batch: Entry[], message: string): Promise<void> {
  const receipts = batch.map((e) => ({
    id: e.event.id,
    standing: 'refused' as const,
    seq: null,
    code: '',
    message,
  }))
  await settle(batch, receipts)
}

async function post(batch: Entry[]): Promise<Schemas['Receipt'][]> {
  const of = batch[0]?.job ?? ''
  const walked = batch.flatMap((entry) => (entry.log === 'walk' ? [entry.event] : []))
  const called = batch.flatMap((entry) => (entry.log === 'callout' ? [entry.event] : []))
  const benched = batch.flatMap((entry) => (isOfBench(entry) ? [entry.event] : []))
  const sent_at = new Date().toISOString() // by it the server tells a clock that is off from work that waited
  if (called.length)
    return (
      await unwrap(
        api.POST('/api/callouts/{key}/events', {
          params: { path: { key: of } },
          body: { events: called, sent_at },
        }),
      )
    ).receipts
  const answer = walked.length
    ? await unwrap(
        api.POST('/api/inspect/walks/{walk_id}/events', {
          params: { path: { walk_id: of } },
          body: { events: walked, sent_at },
        }),
      )
    : await unwrap(
        api.POST('/api/bench/jobs/{job_id}/events', {
          params: { path: { job_id: of } },
          body: { events: benched, sent_at },
        }),
      )
  return answer.receipts
}

async function send(batch: Entry[]): Promise<void> {
  try {
    await settle(batch, await post(batch))
  } catch (error) {
    if (!(error instanceof ApiError) || error.passing) throw error
    // One bad entry must not hold up the others: send them singly, and refuse only the bad one.
    if (batch.length > 1) for (const entry of batch) await send([entry])
    else await refuse(batch, error.body.message)
  }
}

function next(): Entry[] {
  const mine = now.entries.filter((entry) => entry.state === 'waiting' && isOf(user, entry.user))
  return mine.filter((entry) => entry.job === mine[0]?.job).slice(0, BATCH)
}

/** The disk answers again: what it had not taken is put there now. */
async function keepLoose(): Promise<void> {
  for (const entry of now.entries.filter((each) => each.loose && each.state === 'waiting')) {
    const { loose: _, order: __, ...event } = entry
    const kept = await hold(event)
    set({ entries: now.entries.map((each) => (each.event.id === entry.event.id ? kept : each)) })
  }
}

async function sendAll(): Promise<void> {
  if (await reload()) await keepLoose()
  for (let batch = next(); batch.length; batch = next()) await send(batch)
}

/** Send what waits, in order. One tab at a time; a failure tries again by itself. */
export async function flush(): Promise<void> {
  if (sending || !user) return
  sending = true
  try {
    await (navigator.locks ? navigator.locks.request('red-tally-outbox', sendAll) : sendAll())
    failures = 0
    clearTimeout(timer)
    if (now.link !== 'fine') set({ link: 'fine' })
  } catch (error) {
    const signedOut = error instanceof ApiError && error.status === 401
    set({ link: signedOut ? 'signed-out' : 'no-network' })
    if (!signedOut) again()
  } finally {
    sending = false
    tabs?.postMessage('changed')
  }
  if (now.link === 'fine' && next().length) void flush()
}

if (typeof window !== 'undefined') window.addEventListener('online', () => void flush())
if (tabs) tabs.onmessage = () => void reload()
