import { useEffect } from 'react'

const APP = 'Red Tally'
const HEADING = '#view h1'

/** A field that takes the keyboard by itself keeps it. */
const takesTheKeyboard = (): boolean =>
  document.activeElement?.matches('#view input, #view textarea, #view select') ?? false

function focusHeading(heading: HTMLElement): void {
  if (takesTheKeyboard() || document.querySelector('[role="dialog"]')) return
  heading.tabIndex = -1
  heading.focus({ preventScroll: true })
}

/** Each view has a title of its own; on a change of view the focus goes to its heading, so that it is read out and Tab goes on from there. */
export function useHeading(path: string, place: string): void {
  useEffect(() => {
    let moved = first
    first = false
    const look = () => {
      const heading = document.querySelector<HTMLElement>(HEADING)
      const words = heading?.innerText.trim() ?? ''
      document.title = [...new Set([words, place, APP])].filter(Boolean).join(', ')
      if (!heading || !words || moved) return
      moved = true
      focusHeading(heading)
    }
    look()
    const watch = new MutationObserver(look)
    const view = document.querySelector('#view')
    if (view) watch.observe(view, { childList: true, characterData: true, subtree: true })
    return () => watch.disconnect()
  }, [path, place])
}
/** What was opened first is read from the top anyway. */
let first = true
