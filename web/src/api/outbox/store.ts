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
  /** Not on disk: the browser's store failed. It is shown and sent, but closing the page before that would lose it. */
  loose?: boolean
}

interface Box extends DBSchema {
  outbox: { key: number; value: Entry }
}

/** How long the browser's store may take over one act before it is asked again on a fresh connection. */
export const ANSWER_MS = 2500
const TRIES = 2

let box: Promise<IDBPDatabase<Box>> | null = null

const open = (): Promise<IDBPDatabase<Box>> =>
  (box ??= openDB<Box>('red-tally', 1, {
    upgrade(db) {
      db.createObjectStore('outbox', { keyPath: 'order', autoIncrement: true })
    },
    blocking(_now, _wanted, event) {
      // Someone clears the store or brings a newer shape: give way, and open again when next asked.
      box = null
      ;(event.target as IDBDatabase).close()
    },
    terminated() {
      box = null
    },
  }))

/** The act on an open connection, or an error when the browser does not answer in time. */
async function once<T>(act: (db: IDBPDatabase<Box>) => Promise<T>): Promise<T> {
  let late = false
  const answer = open().then((db) => {
    if (late) throw new Error('opened too late')
    return act(db)
  })
  answer.catch(() => undefined) // when it comes too late, nobody asks any more
  let bell: ReturnType<typeof setTimeout> | undefined
  const silence = new Promise<never>((_, reject) => {
    bell = setTimeout(() => {
      late = true
      reject(new Error('the store on this device does not answer'))
    }, ANSWER_MS)
  })
  return Promise.race([answer, silence]).finally(() => clearTimeout(bell))
}

/** The browser may close a connection under us, or never open one (storage cleared, a failing disk): then once more on a fresh one. */
async function within<T>(act: (db: IDBPDatabase<Box>) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await once(act)
    } catch (error) {
      box = null
      if (tries === TRIES) throw error
    }
  }
}

/** Durable first: the entry is on disk before anything else happens with it. Asked twice, it is kept once. */
export async function keep(entry: Omit<Entry, 'order' | 'loose'>): Promise<Entry> {
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

export async function change(entry: Entry): Promise<void> {
  await within((db) => db.put('outbox', entry))
}

export async function drop(orders: number[]): Promise<void> {
  await within(async (db) => {
    const tx = db.transaction('outbox', 'readwrite')
    await Promise.all([...orders.map((order) => tx.store.delete(order)), tx.done])
  })
}
