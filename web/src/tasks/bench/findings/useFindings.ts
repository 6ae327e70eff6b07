import { useQuery } from '@tanstack/react-query'
import { api, unwrap, type Schemas } from '../../../api/client'
import { keys } from '../../../api/keys'

/** The vocabulary for this kind of drum; fetched when a job is opened, so that it is there without network. */
export function useFindings(kind: Schemas['DrumKind']): Schemas['CanBeFound'][] {
  const query = useQuery({
    queryKey: keys.findings(kind),
    queryFn: () => unwrap(api.GET('/api/bench/findings/{kind}', { params: { path: { kind } } })),
    staleTime: Infinity,
    gcTime: Infinity,
  })
  return query.data ?? []
}
