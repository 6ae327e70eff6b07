import { useEffect, useSyncExternalStore } from 'react'

export type Theme = 'bench' | 'stage'
const STORE = 'red-tally-theme'
/** What was chosen where the Stage theme is the usual one. */
const IN_THE_DARK = 'red-tally-theme-in-the-dark'
const listeners = new Set<() => void>()
let dark = 0

const read = (): Theme => (document.documentElement.dataset['theme'] === 'stage' ? 'stage' : 'bench')

function kept(store: string): Theme | null {
  try {
    const found = localStorage.getItem(store)
    return found === 'stage' || found === 'bench' ? found : null
  } catch {
    return null // A private window may refuse storage; the theme then lasts as long as the page.
  }
}

function show(theme: Theme): void {
  document.documentElement.dataset['theme'] = theme
  listeners.forEach((listener) => listener())
}

export function setTheme(theme: Theme): void {
  try {
    localStorage.setItem(dark > 0 ? IN_THE_DARK : STORE, theme)
  } catch {
    // As above.
  }
  show(theme)
}

export function restoreTheme(): void {
  if (kept(STORE) === 'stage') show('stage')
}

/** While this shows it is taken to be dark around: the Stage theme, unless another was chosen in the dark before. */
export function useStageHere(): void {
  useEffect(() => {
    dark += 1
    show(kept(IN_THE_DARK) ?? 'stage')
    return () => {
      dark -= 1
      if (dark === 0) show(kept(STORE) ?? 'bench')
    }
  }, [])
}

export const useTheme = (): Theme =>
  useSyncExternalStore((listener) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }, read)
