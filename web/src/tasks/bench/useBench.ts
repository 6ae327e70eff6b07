import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo } from 'react'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { caughtUp, record, useOutbox, type BenchEntry, type Body } from '../../api/outbox'
import { fold } from './log/fold'

/** How often another device's entries are asked for. */
const POLL_MS = 2000

async function fetchJob(
  job: string,
  known: Schemas['BenchAnswer'] | undefined,
): Promise<Schemas['BenchAnswer']> {
  const since = known?.bench ? known.last_seq : -1
  const answer = await unwrap(
    api.GET('/api/bench/jobs/{job_id}', { params: { path: { job_id: job }, query: { since } } }),
  )
  return answer.bench ? answer : { last_seq: answer.last_seq, bench: known?.bench ?? null }
}

/** One job: what the server knows, what this device has entered since, and a way to enter more. */
export function useBench(job: string) {
  const queries = useQueryClient()
  const { entries } = useOutbox()
  const key = useMemo(() => keys.job(job), [job])
  const query = useQuery({
    queryKey: key,
    queryFn: () => fetchJob(job, queries.getQueryData(key)),
    refetchInterval: POLL_MS,
    staleTime: 0,
  })
  const known = query.data?.bench ?? null
  const seen = known?.last_seq ?? 0
  const unseen = entries.some(
    (entry) => entry.job === job && entry.state === 'sent' && (entry.seq ?? 0) > seen,
  )
  useEffect(() => {
    if (unseen) void queries.invalidateQueries({ queryKey: key })
  }, [unseen, entries, queries, key])
  useEffect(() => caughtUp(job, seen), [job, seen])
  const bench = useMemo(() => (known ? fold(known, entries) : null), [known, entries])
  const enter = useCallback((body: Body) => record(job, seen, body), [job, seen])
  const refused = entries.filter(
    (entry): entry is BenchEntry =>
      (entry.log ?? 'bench') === 'bench' && entry.job === job && entry.state === 'refused',
  )
  const waiting = entries.some((entry) => entry.job === job && entry.state !== 'refused')
  return { bench, enter, refused, waiting, error: known ? null : query.error }
}
