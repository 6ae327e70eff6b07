import { useEffect, useRef, type RefObject } from 'react'

const WRONG = '[aria-invalid="true"]:is(input, textarea, select)'

/** A field found wrong takes the focus if it is the first of its form that is; who is at one already, or writes in it, is left there. */
export function useFault<T extends HTMLElement>(wrong: boolean): RefObject<T | null> {
  const field = useRef<T>(null)
  const was = useRef(wrong)
  useEffect(() => {
    const appeared = wrong && !was.current
    was.current = wrong
    if (!appeared || document.activeElement?.matches(WRONG)) return
    const form = field.current?.closest('form, [role="dialog"], main') ?? document.body
    const first = form.querySelector<HTMLElement>(WRONG)
    if (first && field.current?.contains(first)) first.focus()
  }, [wrong])
  return field
}
