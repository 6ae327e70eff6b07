import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { api, unwrap } from '../api/client'
import { keys } from '../api/keys'

const PULSE_MS = 1000
/** What another device may have changed. Only what is in sight is asked for again. */
const TOLD = [
  keys.today,
  ['sheet'],
  ['drums'],
  keys.stock,
  keys.planned,
  keys.walks,
  keys.callouts,
  ['kits'],
] as const

/** What one device changes is true on every other within two seconds: a small question, asked often, and the large ones only when it changed. */
export function usePulse(): void {
  const queries = useQueryClient()
  const { data } = useQuery({
    queryKey: keys.pulse,
    queryFn: () => unwrap(api.GET('/api/today/pulse')),
    refetchInterval: PULSE_MS,
    retry: false,
    staleTime: 0,
  })
  const before = useRef('')
  const pulse = data?.pulse ?? ''
  useEffect(() => {
    if (before.current && pulse && before.current !== pulse)
      for (const queryKey of TOLD) void queries.invalidateQueries({ queryKey })
    if (pulse) before.current = pulse
  }, [pulse, queries])
}
