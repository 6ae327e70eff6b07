import { useEffect, useEffectEvent } from 'react'

export type KeyMap = Record<string, (() => void) | undefined>

const WRITING = 'input, textarea, select, [contenteditable]'
const PRESSING = 'button, a, [role="button"], [role="radio"], [role="option"], [role="row"]'

/** Keys a hand resting on a page-turn pedal or the arrow block can reach while writing. */
const THROUGH_WRITING = new Set(['PageDown', 'PageUp'])

/** Keys for the whole view. While writing, only those that write nothing; a focused button keeps Space and Enter. */
export function useKeys(map: KeyMap): void {
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || event.repeat) return
    const target = event.target instanceof Element ? event.target : null
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
    if (document.querySelector('[role="dialog"]')) return
    if (target?.closest(WRITING) && !THROUGH_WRITING.has(key)) return
    if ((key === ' ' || key === 'Enter') && target?.closest(PRESSING)) return
    const act = map[key]
    if (!act) return
    event.preventDefault()
    act()
  })
  useEffect(() => {
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
