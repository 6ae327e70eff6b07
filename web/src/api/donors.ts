import { useQuery } from '@tanstack/react-query'
import { api, unwrap } from './client'
import { keys } from './keys'

/** Who could give a rod to this drum; nothing where the server does not answer, as typing works without it. */
export function useDonors(tag: string, side: 'batter' | 'resonant', rod: number, wanted: boolean) {
  return useQuery({
    queryKey: keys.donors(tag, side, rod),
    queryFn: () => unwrap(api.GET('/api/kits/donors', { params: { query: { tag, side, rod } } })),
    enabled: wanted && tag !== '',
    retry: false,
  })
}
