import { useState } from 'react'
import type { Next } from '../../cursor'

/** How a rod of a pass differed: not turned yet, a touch more, or it was there already. */
export type Exception = 'out' | 'more' | 'there'

export interface Exceptions {
  /** What a tap on a rod marks it as. */
  mark: Exception
  choose: (mark: Exception) => void
  of: ReadonlyMap<number, Exception>
  toggle: (rod: number) => void
}

/** Exceptions of the group in hand, one tap each; they go with it. */
export function useExceptions(next: Next): Exceptions {
  const about = next.kind === 'turn' ? `${next.step.id}:${next.lapNo}:${next.group.join()}` : ''
  const [mark, choose] = useState<Exception>('out')
  const [kept, keep] = useState<{ about: string; of: ReadonlyMap<number, Exception> }>({
    about,
    of: new Map(),
  })
  const of = kept.about === about ? kept.of : new Map<number, Exception>()
  const toggle = (rod: number) => {
    const now = new Map(of)
    if (now.get(rod) === mark) now.delete(rod)
    else now.set(rod, mark)
    keep({ about, of: now })
  }
  return { mark, choose, of, toggle }
}
