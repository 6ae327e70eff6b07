import { makeWay } from '../seen'

/** Below this a walk with its photos may not fit any more. */
const NEARLY_BYTES = 40 * 1024 * 1024
const LOOK_MS = 5 * 60_000

/** How the browser keeps what is entered here. `left` is null where it does not say. */
export interface Room {
  /** It does not throw this app's boxes away when it is short of room; null where it knows no such promise. */
  promised: boolean | null
  used: number
  left: number | null
  /** Something could not be put on the disk for want of room. */
  full: boolean
}

let now: Room = { promised: null, used: 0, left: null, full: false }
const listeners = new Set<() => void>()

function set(next: Partial<Room>): void {
  now = { ...now, ...next }
  listeners.forEach((listener) => listener())
}

export const snapshot = (): Room => now
export function subscribe(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export const isNearlyFull = ({ left }: Room): boolean => left !== null && left < NEARLY_BYTES

const storage = (): StorageManager | undefined => globalThis.navigator?.storage

/** How much room there is now. */
export async function look(): Promise<void> {
  try {
    const { usage = 0, quota } = (await storage()?.estimate()) ?? {}
    set({ used: usage, left: quota === undefined ? null : Math.max(0, quota - usage) })
  } catch {
    // A private window may say nothing.
  }
}

/** Ask the browser never to throw away what waits here; it may say no, and asking again costs nothing. */
export async function askToKeep(): Promise<void> {
  const store = storage()
  if (!store?.persist) return
  try {
    set({ promised: (await store.persisted()) || (await store.persist()) })
  } catch {
    set({ promised: false })
  }
}

let looking: ReturnType<typeof setInterval> | undefined
/** From the sign-in on. */
export function watchRoom(): void {
  if (looking) return
  void askToKeep()
  void look()
  looking = setInterval(() => void look(), LOOK_MS)
}

const isFull = (error: unknown): boolean =>
  error instanceof DOMException && error.name === 'QuotaExceededError'

/**
 * Put something a person entered on the disk. Where there is no room, copies of what the server knows make way for it;
 * where that is not enough the device is full, which is said, and the error goes on to the caller.
 */
export async function insist<T>(put: () => Promise<T>): Promise<T> {
  try {
    const done = await put()
    if (now.full) set({ full: false })
    return done
  } catch (error) {
    if (!isFull(error)) throw error
  }
  await makeWay()
  try {
    const done = await put()
    if (now.full) set({ full: false })
    return done
  } catch (error) {
    if (isFull(error)) set({ full: true })
    throw error
  } finally {
    void look()
  }
}
