import { useSyncExternalStore } from 'react'

/** Which build this page is: the server wrote it into it. Empty where none did (development, tests). */
const mine = ((): string => {
  const said = globalThis.document?.querySelector?.<HTMLMetaElement>('meta[name=build]')?.content ?? ''
  return said.startsWith('__') ? '' : said
})()

let given = mine
const listeners = new Set<() => void>()

/** Which build the server gives out, as each of its answers says. */
export function told(build: string | null): void {
  if (!build || build === given) return
  given = build
  listeners.forEach((listener) => listener())
}

export const another = (): boolean => mine !== '' && given !== mine
export function onBuild(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}
/** The server gives out another build than this page is. */
export const useAnother = (): boolean => useSyncExternalStore(onBuild, another)
