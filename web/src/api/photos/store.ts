import type { DBSchema } from 'idb'
import { onDisk } from '../onDisk'

/** A photo on its way to the server; `image` is its JPEG. */
export interface Taken {
  id: string
  user: string
  tag: string
  job: string
  about: string
  taken_at: string
  image: ArrayBuffer
  state: 'waiting' | 'refused'
  message: string
  /** Not on disk: closing the page before it is sent would lose it. */
  loose?: boolean
}

interface Box extends DBSchema {
  photos: { key: string; value: Taken }
}

const within = onDisk<Box>('red-tally-photos', (db) => {
  db.createObjectStore('photos', { keyPath: 'id' })
})

export const keep = (photo: Taken): Promise<string> => within((db) => db.put('photos', photo))
export const kept = (): Promise<Taken[]> => within((db) => db.getAll('photos'))
export const drop = (id: string): Promise<void> => within((db) => db.delete('photos', id))
