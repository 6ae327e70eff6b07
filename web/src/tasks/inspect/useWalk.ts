import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useMemo } from 'react'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { recordSeen, useOwnEntries, type WalkBody } from '../../api/outbox'
import { fold, type Walk } from './log/fold'

/** How often another person's entries are asked for. */
const POLL_MS = 3000

type Without<B> = B extends { drum: string } ? Omit<B, 'drum'> : never
/** An entry without the drum it is about. */
export type Said = Without<WalkBody>

/** News laid onto what is known: entries added, verdicts of drums renewed. */
function joined(known: Walk, news: Walk): Walk {
  const renewed = new Set(news.verdicts.map((each) => each.tag))
  return {
    ...news,
    drums: known.drums,
    ticks: known.ticks,
    can: known.can,
    events: [...known.events, ...news.events],
    verdicts: [...known.verdicts.filter((each) => !renewed.has(each.tag)), ...news.verdicts],
  }
}

async function fetchWalk(id: string, known: Walk | undefined): Promise<Walk> {
  const ask = (since: number) =>
    unwrap(api.GET('/api/inspect/walks/{walk_id}', { params: { path: { walk_id: id }, query: { since } } }))
  return known ? joined(known, await ask(known.last_seq)) : ask(-1)
}

/** One walk: what the server knows, what this device has entered since, and a way to enter more. */
export function useWalk(id: string) {
  const queries = useQueryClient()
  const key = useMemo(() => keys.walk(id), [id])
  const query = useQuery({
    queryKey: key,
    queryFn: () => fetchWalk(id, queries.getQueryData(key)),
    refetchInterval: POLL_MS,
    staleTime: 0,
  })
  const walk = query.data ?? null
  const seen = walk?.last_seq ?? 0
  const { entries, refused, waiting } = useOwnEntries('walk', id, seen, key)
  const looks = useMemo(() => (walk ? fold(walk, entries) : null), [walk, entries])
  const enter = useCallback(
    (drum: string, said: Said) => recordSeen(id, seen, { ...said, drum } as WalkBody),
    [id, seen],
  )
  return {
    walk,
    looks,
    enter,
    refused,
    waiting,
    error: walk ? null : query.error,
    again: () => void queries.resetQueries({ queryKey: key }),
  }
}
