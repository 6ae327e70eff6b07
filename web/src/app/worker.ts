import { useSyncExternalStore } from 'react'
import { another, onBuild } from '../api/build'

/** The service worker: keeps the app on this device, and brings a newer one beside it. */

let registration: ServiceWorkerRegistration | undefined
let waiting = false
const listeners = new Set<() => void>()

const container = (): ServiceWorkerContainer | undefined => globalThis.navigator?.serviceWorker

function found(): void {
  waiting = Boolean(registration?.waiting && container()?.controller)
  listeners.forEach((listener) => listener())
}

/** Go over to the newer app. What waits in this browser's boxes is none of the app's files and stays. */
export function takeUp(): void {
  const next = registration?.waiting
  if (!next) return globalThis.location.reload()
  container()?.addEventListener('controllerchange', () => globalThis.location.reload(), { once: true })
  next.postMessage({ type: 'SKIP_WAITING' })
}

/**
 * At an address this app does not know: a newer one may. Nothing is typed there, so it is taken up as soon as it lies ready.
 */
export async function seekNewer(): Promise<void> {
  registration ??= await container()
    ?.getRegistration('/')
    .catch(() => undefined)
  const known = registration
  if (!known) return
  await known.update().catch(() => undefined)
  if (known.waiting) return takeUp()
  known.installing?.addEventListener('statechange', () => {
    if (known.waiting) takeUp()
  })
}

/** On a page that just opened, before anything is typed, a newer app that lies ready is taken up at once. */
export async function startWorker(): Promise<void> {
  const workers = container()
  if (!workers || !import.meta.env.PROD) return
  registration = await workers.getRegistration('/').catch(() => undefined)
  if (registration?.waiting && registration.active) return takeUp()
  registration = await workers.register('/sw.js', { scope: '/' }).catch(() => undefined)
  registration?.addEventListener('updatefound', () => {
    registration?.installing?.addEventListener('statechange', found)
  })
  onBuild(() => void registration?.update().catch(() => undefined))
  // A part of this app that is no longer given out: the newer one has it.
  globalThis.addEventListener('vite:preloadError', (event) => {
    if (!waiting && !another()) return
    event.preventDefault()
    takeUp()
  })
}

/** A newer app lies ready. Where there is no worker (plain http on a network), the server's word for it is enough. */
export const useNewer = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      const stop = onBuild(listener)
      return () => {
        listeners.delete(listener)
        stop()
      }
    },
    () => waiting || (!registration && another()),
  )
