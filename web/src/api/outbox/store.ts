import type { DBSchema } from 'idb'
import type { Schemas } from '../client'
import { onDisk } from '../onDisk'

export { ANSWER_MS } from '../onDisk'

export type Body = Schemas['EventIn']['body']

export type WalkBody = Schemas['WalkEventIn']['body']

export type CalloutBody = Schemas['CallOutEventIn']['body']

/** One entry on its way to the server. `sent` ones wait only until what the server says with them is on this device. */
interface Base {
  order: number
  /** The job, the walk or the call-out it belongs to. */
  job: string
  user: string
  state: 'waiting' | 'refused' | 'sent'
  message: string
  /** Its number in the server’s log, once it was sent. */
  seq: number | null
  /** Not on disk: the browser's store failed. It is shown and sent, but closing the page before that would lose it. */
  loose?: boolean
}
export interface BenchEntry extends Base {
  log?: 'bench'
  event: Schemas['EventIn']
}
export interface WalkEntry extends Base {
  log: 'walk'
  event: Schemas['WalkEventIn']
}
export interface CalloutEntry extends Base {
  log: 'callout'
  event: Schemas['CallOutEventIn']
}
export type Entry = BenchEntry | WalkEntry | CalloutEntry
export const isOfBench = (entry: Entry): entry is BenchEntry => (entry.log ?? 'bench') === 'bench'
/** One that has no place in the order yet. */
export type Fresh =
  | Omit<BenchEntry, 'order' | 'loose'>
  | Omit<WalkEntry, 'order' | 'loose'>
  | Omit<CalloutEntry, 'order' | 'loose'>

interface Box extends DBSchema {
  outbox: { key: number; value: Entry }
}

const within = onDisk<Box>('red-tally', (db) => {
  db.createObjectStore('outbox', { keyPath: 'order', autoIncrement: true })
})

/** Durable first: the entry is on disk before anything else happens with it. Asked twice, it is kept once. */
export async function keep(entry: Fresh): Promise<Entry> {
  const order = await within(async (db) => {
    const tx = db.transaction('outbox', 'readwrite')
    const there = (await tx.store.getAll()).find((each) => each.event.id === entry.event.id)
    const at = there ? there.order : await tx.store.add(entry as Entry)
    await tx.done
    return at
  })
  return { ...entry, order }
}

export async function kept(): Promise<Entry[]> {
  return within((db) => db.getAll('outbox'))
}

export async function change(entries: Entry[]): Promise<void> {
  await within(async (db) => {
    const tx = db.transaction('outbox', 'readwrite')
    await Promise.all([...entries.map((entry) => tx.store.put(entry)), tx.done])
  })
}

export async function drop(orders: number[]): Promise<void> {
  await within(async (db) => {
    const tx = db.transaction('outbox', 'readwrite')
    await Promise.all([...orders.map((order) => tx.store.delete(order)), tx.done])
  })
}
