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
    terminated() {
      box = null
    },
  }))

/** The browser may close a connection under us (storage cleared, a failing disk): then once more on a fresh one. */
async function within<T>(act: (db: IDBPDatabase<Box>) => Promise<T>): Promise<T> {
  try {
    return await act(await open())
  } catch {
    box = null
    return act(await open())
  }
}

/** Durable first: the entry is on disk before anything else happens with it. */
export async function keep(entry: Omit<Entry, 'order'>): Promise<Entry> {
  const order = await within((db) => db.add('outbox', entry as Entry))
  return { ...entry, order }
}

export async function kept(): Promise<Entry[]> {
  return within((db) => db.getAll('outbox'))
}

export async function change(entry: Entry): Promise<void> {
  await within((db) => db.put('outbox', entry))
}

export async function drop(orders: number[]): Promise<void> {
  await within(async (db) => {
    const tx = db.transaction('outbox', 'readwrite')
    await Promise.all([...orders.map((order) => tx.store.delete(order)), tx.done])
  })
}
