export const draftKey = (job: string): string => `red-tally-reading:${job}`
export const otherKey = (job: string): string => `red-tally-other-head:${job}`
export const RINGS = 'rings'

const TOGETHER = 'red-tally-turn-and-tap'

/** Turn and tap is one switch of this device, remembered. */
export function turnsAndTaps(): boolean {
  try {
    return localStorage.getItem(TOGETHER) === 'on'
  } catch {
    return false
  }
}

export function rememberTurnAndTap(on: boolean): void {
  try {
    localStorage.setItem(TOGETHER, on ? 'on' : '')
  } catch {
    // Storage refused: it lasts as long as the page.
  }
}

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
