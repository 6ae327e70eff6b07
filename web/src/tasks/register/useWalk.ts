import { useEffect, type KeyboardEvent, type RefObject } from 'react'

function walk(list: HTMLElement | null, step: number): void {
  const rows = [...(list?.querySelectorAll<HTMLAnchorElement>('tbody a') ?? [])]
  const at = rows.findIndex((row) => row === document.activeElement)
  rows[Math.min(rows.length - 1, Math.max(0, at + step))]?.focus()
}

/** Up and down walk the rows; from the search field, down or Enter goes to the first. */
export function useWalk(
  table: RefObject<HTMLElement | null>,
  searchRef: RefObject<HTMLInputElement | null>,
): (event: KeyboardEvent) => void {
  useEffect(() => {
    const field = searchRef.current
    const down = (event: globalThis.KeyboardEvent) => {
      if (event.key !== 'ArrowDown' && event.key !== 'Enter') return
      event.preventDefault()
      walk(table.current, 1)
    }
    field?.addEventListener('keydown', down)
    return () => field?.removeEventListener('keydown', down)
  }, [table, searchRef])
  return (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault()
      walk(table.current, event.key === 'ArrowDown' ? 1 : -1)
    }
  }
}
