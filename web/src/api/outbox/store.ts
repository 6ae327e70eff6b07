import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Schemas } from '../client'

export type Body = Schemas['EventIn']['body']

/** One bench entry on its way to the server. `sent` ones wait only for the screen to catch up. */
export interface Entry {
  order: number
  job: string
  user: string
  event: Schemas['EventIn']
  state: 'waiting' | 'refused' | 'sent'
  message: string
  seq: number | null
}

interface Box extends DBSchema {
  outbox: { key: number; value: Entry }
}

let box: Promise<IDBPDatabase<Box>> | null = null

const open = (): Promise<IDBPDatabase<Box>> =>
  (box ??= openDB<Box>('red-tally', 1, {
    upgrade(db) {
      db.createObjectStore('outbox', { keyPath: 'order', autoIncrement: true })
    },
  }))

/** Durable first: the entry is on disk before anything else happens with it. */
export async function keep(entry: Omit<Entry, 'order'>): Promise<Entry> {
  const db = await open()
  const order = await db.add('outbox', entry as Entry)
  return { ...entry, order }
}

export async function kept(): Promise<Entry[]> {
  return (await open()).getAll('outbox')
}

export async function change(entry: Entry): Promise<void> {
  await (await open()).put('outbox', entry)
}

export async function drop(orders: number[]): Promise<void> {
  const tx = (await open()).transaction('outbox', 'readwrite')
  await Promise.all([...orders.map((order) => tx.store.delete(order)), tx.done])
}
