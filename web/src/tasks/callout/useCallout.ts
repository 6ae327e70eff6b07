import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useMemo } from 'react'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { device, recordCallout, useOwnEntries, type CalloutBody } from '../../api/outbox'
import { entered, fold, type Callout } from './log/fold'

/** How often another person's entries are asked for. */
const POLL_MS = 3000

async function fetchCallout(id: string, known: Callout | undefined): Promise<Callout> {
  const since = known?.book ? known.last_seq : -1
  const news = await unwrap(
    api.GET('/api/callouts/{key}', { params: { path: { key: id }, query: { since } } }),
  )
  if (!known?.book || since < 0) return news
  return { ...news, book: known.book, bag: known.bag, events: [...known.events, ...news.events] }
}

/** One call-out: what the server knows, what this device has entered since, and a way to enter more. It goes on without network. */
export function useCallout(id: string) {
  const queries = useQueryClient()
  const key = useMemo(() => keys.callout(id), [id])
  const query = useQuery({
    queryKey: key,
    queryFn: () => fetchCallout(id, queries.getQueryData(key)),
    refetchInterval: POLL_MS,
    staleTime: 0,
  })
  const callout = query.data ?? null
  const seen = callout?.last_seq ?? 0
  const { entries, refused, waiting } = useOwnEntries('callout', id, seen, key)
  const stands = useMemo(
    () => (callout?.book ? fold(callout.book, entered(callout, entries)) : null),
    [callout, entries],
  )
  const enter = useCallback((body: CalloutBody) => void recordCallout(id, seen, body), [id, seen])
  return {
    callout,
    book: callout?.book ?? null,
    stands,
    enter,
    device,
    refused,
    waiting,
    error: callout ? null : query.error,
  }
}

export type Enter = (body: CalloutBody) => void
