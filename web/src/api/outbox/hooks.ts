import { useQueryClient, type QueryKey } from '@tanstack/react-query'
import { useEffect, useSyncExternalStore } from 'react'
import { caughtUp, snapshot, subscribe, type Outbox } from './outbox'

export const useOutbox = (): Outbox => useSyncExternalStore(subscribe, snapshot)

/**
 * This device's entries of one walk or call-out. Once they are sent the log is asked for again, and what it has told by then (`seen`) is let go
 * of here.
 */
export function useOwnEntries(log: 'walk' | 'callout', id: string, seen: number, key: QueryKey) {
  const queries = useQueryClient()
  const { entries } = useOutbox()
  const mine = entries.filter((entry) => entry.log === log && entry.job === id)
  const unseen = mine.some((entry) => entry.state === 'sent' && (entry.seq ?? 0) > seen)
  useEffect(() => {
    if (unseen) void queries.invalidateQueries({ queryKey: key })
  }, [unseen, entries, queries, key])
  useEffect(() => caughtUp(id, seen), [id, seen])
  return {
    entries,
    refused: mine.filter((entry) => entry.state === 'refused'),
    waiting: mine.some((entry) => entry.state === 'waiting'),
  }
}
