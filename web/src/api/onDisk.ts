import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** How long the browser's store may take over one act before it is asked again on a fresh connection. */
export const ANSWER_MS = 2500
const TRIES = 2

/** Acts on a store of this browser; `make` lays it out the first time. */
export function onDisk<Box extends DBSchema>(name: string, make: (db: IDBPDatabase<Box>) => void) {
  let box: Promise<IDBPDatabase<Box>> | null = null

  const open = (): Promise<IDBPDatabase<Box>> =>
    (box ??= openDB<Box>(name, 1, {
      upgrade: make,
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
  return async function within<T>(act: (db: IDBPDatabase<Box>) => Promise<T>): Promise<T> {
    for (let tries = 1; ; tries += 1) {
      try {
        return await once(act)
      } catch (error) {
        box = null
        if (tries === TRIES) throw error
      }
    }
  }
}
