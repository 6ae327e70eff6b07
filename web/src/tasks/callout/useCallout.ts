import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useMemo } from 'react'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { device, recordCallout, useOwnEntries, type CalloutBody } from '../../api/outbox'
import { entered, fold, type Callout } from './log/fold'

/** How often another person's entries are asked for. */
const POLL_MS = 3000

async function fetchCallout(id: string, known: Callout | undefined): Promise<Callout> {
  const since = known?.form ? known.last_seq : -1 // a copy an older app kept has no form
  const news = await unwrap(
    api.GET('/api/callouts/{key}', { params: { path: { key: id }, query: { since } } }),
  )
  if (!known || since < 0) return news
  return {
    ...news,
    book: known.book,
    bag: known.bag,
    form: known.form,
    events: [...known.events, ...news.events],
  }
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
  const log = useMemo(() => (callout ? entered(callout, entries) : []), [callout, entries])
  const stands = useMemo(() => (callout?.book ? fold(callout.book, log) : null), [callout, log])
  const began = log.find((each) => each.body.kind === 'clock')?.at ?? callout?.show_at ?? null
  const on = useMemo(() => (began ? new Date(began) : new Date()), [began])
  const enter = useCallback((body: CalloutBody) => void recordCallout(id, seen, body), [id, seen])
  return {
    callout,
    book: callout?.book ?? null,
    form: callout?.form ?? null,
    stands,
    on,
    enter,
    device,
    refused,
    waiting,
    error: callout ? null : query.error,
  }
}

export type Enter = (body: CalloutBody) => void
