import { useState } from 'react'
import type { Next } from '../../cursor'

/** How a rod of a pass differed: not turned yet, a touch more, or it was there already. */
export type Exception = 'out' | 'more' | 'there'

export interface Exceptions {
  of: ReadonlyMap<number, Exception>
  /** One tap says it, another takes it back. */
  toggle: (rod: number, as: Exception) => void
}

/** Exceptions of the group in hand, one tap each; they go with it. */
export function useExceptions(next: Next): Exceptions {
  const about = next.kind === 'turn' ? `${next.step.id}:${next.lapNo}:${next.group.join()}` : ''
  const [kept, keep] = useState<{ about: string; of: ReadonlyMap<number, Exception> }>({
    about,
    of: new Map(),
  })
  const of = kept.about === about ? kept.of : new Map<number, Exception>()
  const toggle = (rod: number, as: Exception) => {
    const now = new Map(of)
    if (now.get(rod) === as) now.delete(rod)
    else now.set(rod, as)
    keep({ about, of: now })
  }
  return { of, toggle }
}
