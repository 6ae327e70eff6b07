export const draftKey = (job: string): string => `red-tally-reading:${job}`
export const otherKey = (job: string): string => `red-tally-other-head:${job}`
export const RINGS = 'rings'

/** What this page kept for itself through a reload. */
export function kept(key: string): string {
  try {
    return sessionStorage.getItem(key) ?? ''
  } catch {
    return ''
  }
}

export function keepFor(key: string, text: string): void {
  try {
    sessionStorage.setItem(key, text)
  } catch {
    // Storage refused: it lasts as long as the page.
  }
}
