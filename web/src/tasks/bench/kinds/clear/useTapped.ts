import { useEffect, useState } from 'react'
import type { Next } from '../../cursor'
import type { Lap } from '../../log/types'

/** A tap may be on its way while a rod is still to be read. */
const QUIET_MS = 3500

/** The round was tapped otherwise than asked; said once no further tap is to be expected. */
export function useTapped(next: Next): Lap['tapped'] {
  const found = next.kind === 'read' ? next.lap.tapped : null
  const asked = found ? JSON.stringify(found.moves) : ''
  const whole = next.kind === 'read' && next.rod === null
  const [quiet, setQuiet] = useState('')
  useEffect(() => {
    if (!asked || whole) return
    const timer = setTimeout(() => setQuiet(asked), QUIET_MS)
    return () => clearTimeout(timer)
  }, [asked, whole])
  return found && (whole || quiet === asked) ? found : null
}
