import { useSyncExternalStore } from 'react'

const STORE = 'red-tally-letter-keys'
const listeners = new Set<() => void>()

/** Keys of one character can be switched off on a device: someone who speaks to it, or rests a hand on it, presses them unmeant (WCAG 2.1.4). */
export function letterKeysOn(): boolean {
  try {
    return localStorage.getItem(STORE) !== 'off'
  } catch {
    return true // A private window may refuse storage.
  }
}

function show(): void {
  document.documentElement.dataset['letters'] = letterKeysOn() ? 'on' : 'off'
}

export function setLetterKeys(on: boolean): void {
  try {
    localStorage.setItem(STORE, on ? 'on' : 'off')
  } catch {
    // As above.
  }
  show()
  listeners.forEach((listener) => listener())
}

export const restoreLetterKeys = show

export const useLetterKeys = (): boolean =>
  useSyncExternalStore((listener) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }, letterKeysOn)
