import { useEffect, useEffectEvent } from 'react'
import { letterKeysOn } from './letters'

export type KeyMap = Record<string, (() => void) | undefined>

const WRITING = 'input, textarea, select, [contenteditable]'
const PRESSING = 'button, a, [role="button"], [role="radio"], [role="option"], [role="row"]'
/** Writes nothing: Space would press it once more. */
const CHOOSING = 'input[type="radio"], input[type="checkbox"]'

/** Keys a hand resting on a page-turn pedal or the arrow block can reach while writing. */
const THROUGH_WRITING = new Set(['PageDown', 'PageUp'])
const MOVING = new Set(['Tab', 'ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'Home', 'End'])

/** How what has the focus came to it: only a control that somebody went to by keys, and has not pressed since, keeps Space. */
let wentByKeys = false
let focusedByKeys = false
let pressedSince = false

if (typeof window !== 'undefined') {
  window.addEventListener('pointerdown', () => (wentByKeys = false), true)
  window.addEventListener('keydown', ({ key }) => (wentByKeys = MOVING.has(key)), true)
  window.addEventListener(
    'focusin',
    () => {
      focusedByKeys = wentByKeys
      pressedSince = false
    },
    true,
  )
  window.addEventListener('click', () => (pressedSince = true), true)
}

const keyOf = ({ key }: KeyboardEvent): string => (key.length === 1 ? key.toLowerCase() : key)
const inDialog = (): boolean => document.querySelector('[role="dialog"]') !== null

/** Whether Space or Enter belongs to the view though a control has the focus: it was pressed last, or by a pointer. */
function leftOver(target: Element, key: string): boolean {
  if (target.closest('[role="listbox"], [role="menu"]')) return false
  if (!target.closest(PRESSING) && !target.matches(CHOOSING)) return false
  if (key === 'Enter') return !focusedByKeys && !target.matches(CHOOSING)
  return key === ' ' && (!focusedByKeys || pressedSince)
}

/** Keys for the whole view. While writing, only those that write nothing; a control somebody went to by keys keeps Space and Enter. */
export function useKeys(map: KeyMap): void {
  const act = (event: KeyboardEvent, key: string) => {
    if (key in map) event.preventDefault() // Space never scrolls where it is a key, though there may be nothing to do now
    if (!event.repeat) map[key]?.()
  }
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return
    const target = event.target instanceof Element ? event.target : null
    const key = keyOf(event)
    if (inDialog() || (key !== ' ' && event.repeat)) return
    if (key.length === 1 && key !== ' ' && !letterKeysOn()) return
    if (target?.closest(WRITING) && !THROUGH_WRITING.has(key)) return
    if ((key === ' ' || key === 'Enter') && target?.closest(PRESSING)) return
    if (key === ' ' || map[key]) act(event, key)
  })
  // Before the control itself hears it.
  const onLeftOver = useEffectEvent((event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || inDialog()) return
    const key = keyOf(event)
    if (!(event.target instanceof HTMLElement) || !(key in map) || !leftOver(event.target, key)) return
    event.stopPropagation()
    event.target.blur()
    act(event, key)
  })
  useEffect(() => {
    window.addEventListener('keydown', onLeftOver, true)
    window.addEventListener('keydown', onKey)
    return () => {
      window.removeEventListener('keydown', onLeftOver, true)
      window.removeEventListener('keydown', onKey)
    }
  }, [])
}
