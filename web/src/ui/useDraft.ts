import { useEffect, useState } from 'react'

function read<T>(key: string): T | null {
  try {
    const kept = localStorage.getItem(key)
    return kept ? (JSON.parse(kept) as T) : null
  } catch {
    return null
  }
}

/** What is being filled in, kept on this device through a reload until it is saved. */
export function useDraft<T extends object>(
  name: string,
  fresh: T,
): [draft: T, set: (next: T) => void, forget: () => void] {
  const key = `red-tally-draft:${name}`
  const [draft, setDraft] = useState<T>(() => ({ ...fresh, ...read<Partial<T>>(key) }))
  const [touched, setTouched] = useState(false)
  useEffect(() => {
    if (!touched) return
    try {
      localStorage.setItem(key, JSON.stringify(draft))
    } catch {
      // Storage refused (a private window): the draft lasts as long as the page.
    }
  }, [key, draft, touched])
  const set = (next: T) => {
    setTouched(true)
    setDraft(next)
  }
  const forget = () => {
    setTouched(false)
    try {
      localStorage.removeItem(key)
    } catch {
      // As above.
    }
  }
  return [draft, set, forget]
}
