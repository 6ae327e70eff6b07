import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, unwrap, type Schemas } from './client'
import { keys } from './keys'

export type Session = Schemas['SessionOut']

export function useSession() {
  return useQuery({
    queryKey: keys.session,
    queryFn: () => unwrap(api.GET('/api/session')),
    staleTime: 60_000,
  })
}

export function useSignIn() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['SignIn']) => unwrap(api.POST('/api/session', { body })),
    onSuccess: (session) => {
      queries.setQueryData(keys.session, session)
      void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
    },
  })
}

export function useSignOut() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => unwrap(api.DELETE('/api/session')),
    onSuccess: () => {
      queries.clear()
      void queries.invalidateQueries({ queryKey: keys.session })
    },
  })
}

/** May this person change things? */
export const mayChange = (session: Session | undefined): boolean =>
  session?.role === 'owner' || session?.role === 'technician'
