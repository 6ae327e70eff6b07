import { useQueryClient, type Query, type QueryClient } from '@tanstack/react-query'
import { useEffect, useSyncExternalStore } from 'react'
import { ApiError } from '../client'
import { keys } from '../keys'
import { moments, subscribe } from './seen'

/** While the server is silent it is asked again this often. */
const AGAIN_MS = 5000

/** Today is asked for on every page, for what is owed; it is shown where somebody else watches it too. */
const shows = (query: Query): boolean =>
  query.queryKey[0] !== keys.session[0] &&
  query.getObserversCount() > (query.queryKey[0] === keys.today[0] ? 1 : 0)

function oldest(queries: QueryClient): number | null {
  const shown = queries.getQueryCache().findAll({ type: 'active', predicate: shows })
  const at = shown.flatMap(({ queryHash }) => moments().get(queryHash) ?? [])
  return at.length ? Math.min(...at) : null
}

const unanswered = ({ queryHash, state }: Query): boolean =>
  moments().has(queryHash) || (state.error instanceof ApiError && state.error.unreachable)

/** When the oldest of what this page shows was given, while the server does not answer; null while it does. It is asked again until then. */
export function useOldest(): number | null {
  const queries = useQueryClient()
  const at = useSyncExternalStore(
    (listener) => {
      const stop = [subscribe(listener), queries.getQueryCache().subscribe(listener)]
      return () => stop.forEach((each) => each())
    },
    () => oldest(queries),
  )
  useEffect(() => {
    const again = () => void queries.refetchQueries({ type: 'active', predicate: unanswered })
    const timer = setInterval(again, AGAIN_MS)
    window.addEventListener('online', again)
    return () => {
      clearInterval(timer)
      window.removeEventListener('online', again)
    }
  }, [queries])
  return at
}
