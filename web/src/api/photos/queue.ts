import { isOf } from '../../domain/keptFor'
import { newId } from '../../domain/ids'
import { api, ApiError, unwrap } from '../client'
import { insist } from '../device'
import * as store from './store'
import type { Taken } from './store'

const RETRY_MS = [1000, 2000, 4000, 8000] as const

let now: readonly Taken[] = []
let user = ''
let failures = 0
let timer: ReturnType<typeof setTimeout> | undefined
let sending = false
const listeners = new Set<() => void>()

function set(next: readonly Taken[]): void {
  now = next
  listeners.forEach((listener) => listener())
}

export const snapshot = (): readonly Taken[] => now
export function subscribe(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** Take up, for a person, the photos an earlier page left, and send them. */
export async function beginPhotos(keptFor: string): Promise<void> {
  user = keptFor
  const disk = await store.kept().catch(() => [])
  const known = new Set(now.map((photo) => photo.id))
  set([...now, ...disk.filter((photo) => !known.has(photo.id))])
  void send()
}

/** Keep a photo on this device and send it as soon as that can be done. */
export async function addPhoto(of: { tag: string; job: string; about: string }, image: Blob): Promise<void> {
  const photo: Taken = {
    ...of,
    id: newId(),
    user,
    taken_at: new Date().toISOString(),
    image: await image.arrayBuffer(),
    state: 'waiting',
    message: '',
  }
  // A store that fails leaves it in memory, which is said; it is sent all the same.
  const held = await insist(() => store.keep(photo)).then(
    () => photo,
    () => ({ ...photo, loose: true }),
  )
  set([...now, held])
  void send()
}

/** Let go of a photo: one that was sent, or one the person gives up. */
export async function letGo(id: string): Promise<void> {
  set(now.filter((photo) => photo.id !== id))
  await store.drop(id).catch(() => undefined)
}

function form(photo: Taken): FormData {
  const made = new FormData()
  const fields = {
    id: photo.id,
    tag: photo.tag,
    job_id: photo.job,
    about: photo.about,
    taken_at: photo.taken_at,
  }
  for (const [name, value] of Object.entries(fields)) if (value) made.append(name, value)
  made.append('photo', new Blob([photo.image], { type: 'image/jpeg' }), 'photo.jpg')
  return made
}

async function sendOne(photo: Taken): Promise<void> {
  try {
    // The form is typed by its fields in the schema; what is sent is the form itself.
    await unwrap(
      api.POST('/api/photos', { body: form(photo) as never, bodySerializer: (body) => body as never }),
    )
    await letGo(photo.id)
  } catch (error) {
    if (!(error instanceof ApiError) || error.passing) throw error
    const refused: Taken = { ...photo, state: 'refused', message: error.body.message }
    await store.keep(refused).catch(() => undefined)
    set(now.map((each) => (each.id === photo.id ? refused : each)))
  }
}

const next = (): Taken | undefined => now.find((photo) => photo.state === 'waiting' && isOf(user, photo.user))

/** Send what waits, one after the other; a failure tries again by itself. */
export async function send(): Promise<void> {
  if (sending || !user) return
  sending = true
  clearTimeout(timer)
  try {
    for (let photo = next(); photo; photo = next()) await sendOne(photo)
    failures = 0
  } catch {
    const wait = RETRY_MS[Math.min(failures, RETRY_MS.length - 1)] ?? 8000
    failures += 1
    timer = setTimeout(() => void send(), wait)
  } finally {
    sending = false
  }
}

if (typeof window !== 'undefined') window.addEventListener('online', () => void send())
