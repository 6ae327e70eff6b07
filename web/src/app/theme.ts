import { useSyncExternalStore } from 'react'

export type Theme = 'bench' | 'stage'
const STORE = 'red-tally-theme'
const listeners = new Set<() => void>()

const read = (): Theme => (document.documentElement.dataset['theme'] === 'stage' ? 'stage' : 'bench')

export function setTheme(theme: Theme): void {
  document.documentElement.dataset['theme'] = theme
  try {
    localStorage.setItem(STORE, theme)
  } catch {
    // A private window may refuse storage; the theme then lasts as long as the page.
  }
  listeners.forEach((listener) => listener())
}

export function restoreTheme(): void {
  try {
    if (localStorage.getItem(STORE) === 'stage') document.documentElement.dataset['theme'] = 'stage'
  } catch {
    // As above.
  }
}

export const useTheme = (): Theme =>
  useSyncExternalStore((listener) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }, read)
