import type { DBSchema } from 'idb'
import { onDisk } from '../onDisk'

/** What the server said to one question, and when. */
export interface Copy {
  /** Whose it is, and the question. */
  key: string
  at: number
  data: unknown
}

interface Box extends DBSchema {
  copies: { key: string; value: Copy; indexes: { at: number } }
}

const MOST = 600

const within = onDisk<Box>('red-tally-seen', (db) => {
  db.createObjectStore('copies', { keyPath: 'key' }).createIndex('at', 'at')
})

export const put = (copy: Copy): Promise<string> => within((db) => db.put('copies', copy))
export const get = (key: string): Promise<Copy | undefined> => within((db) => db.get('copies', key))
/** Take all copies out but those that are `spared`, by their keys. */
export async function clear(spared: (key: string) => boolean = () => false): Promise<void> {
  await within(async (db) => {
    const tx = db.transaction('copies', 'readwrite')
    const gone = (await tx.store.getAllKeys()).filter((key) => !spared(key))
    await Promise.all([...gone.map((key) => tx.store.delete(key)), tx.done])
  })
}

/** Let go of what nobody looked at since, and of the oldest of too many. */
export async function prune(before: number): Promise<void> {
  await within(async (db) => {
    const tx = db.transaction('copies', 'readwrite')
    let over = (await tx.store.count()) - MOST
    for (let at = await tx.store.index('at').openCursor(); at; at = await at.continue()) {
      if (at.value.at >= before && over <= 0) break
      over -= 1
      await at.delete()
    }
    await tx.done
  })
}
