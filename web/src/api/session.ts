import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { signWithPasskey } from '../domain/passkey'
import { api, show, unwrap, type Schemas } from './client'
import { watchRoom } from './device'
import { keys } from './keys'
import { forget, note, seenBy, tidy } from './seen'

/** Everything but who is in: that one is watched and must not be taken from under its watchers. */
const OTHERS = {
  predicate: (query: { queryKey: readonly unknown[] }) => query.queryKey[0] !== keys.session[0],
}

/** While nobody can say who is in, this often. */
const AGAIN_MS = 5000

export type Session = Schemas['SessionOut']

/** This page is of whoever is in from here on. Nobody: then nothing seen before stays on the device either. */
export function enterAs(session: Session): void {
  show(session.workshop?.id ?? null)
  seenBy(session.kept_for)
  if (!session.username) return void forget()
  void tidy()
  watchRoom()
}

export function useSession() {
  return useQuery({
    queryKey: keys.session,
    queryFn: () => unwrap(api.GET('/api/session')),
    staleTime: 60_000,
    // The sign-in page says at once that nothing answers, and goes on by itself when something does.
    retry: false,
    retryOnMount: false,
    refetchInterval: (query) => (query.state.data ? false : AGAIN_MS),
  })
}

/** Whoever is in now: what was known before may have been another's. */
export function useEnter() {
  const queries = useQueryClient()
  return (session: Session, another = false) => {
    enterAs(session)
    if (another) queries.removeQueries(OTHERS)
    queries.setQueryData(keys.session, session)
    const known = queries.getQueryCache().find({ queryKey: keys.session })
    if (known) note(known) // it was no answer to a question, and has to open the app without network all the same
    void queries.invalidateQueries(OTHERS)
  }
}

export function useSignIn() {
  const enter = useEnter()
  return useMutation({
    mutationFn: (body: Schemas['SignIn']) => unwrap(api.POST('/api/session', { body })),
    onSuccess: (session) => (session.username ? enter(session) : undefined),
  })
}

/** The second step: the code. */
export function useCode() {
  const enter = useEnter()
  return useMutation({
    mutationFn: (code: string) => unwrap(api.POST('/api/session/code', { body: { code } })),
    onSuccess: (session) => enter(session),
  })
}

/** With a key of the device, without name and password. */
export function usePasskeySignIn() {
  const enter = useEnter()
  return useMutation({
    mutationFn: async () => {
      const asked = await unwrap(api.POST('/api/session/passkey/ask'))
      const credential = await signWithPasskey(asked.options)
      return unwrap(api.POST('/api/session/passkey', { body: { credential } }))
    },
    onSuccess: (session) => enter(session),
  })
}

/** Go on in another of one's workshops. */
export function useSwitch() {
  const enter = useEnter()
  return useMutation({
    mutationFn: (workshop: number) => unwrap(api.PUT('/api/session/workshop', { body: { workshop } })),
    onSuccess: (session) => enter(session, true),
  })
}

export function useSignOut() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: () => unwrap(api.DELETE('/api/session')),
    onSuccess: () => {
      show(null)
      queries.removeQueries(OTHERS)
      return queries.invalidateQueries({ queryKey: keys.session })
    },
  })
}

/** May this person change things? */
export const mayChange = (session: Session | undefined): boolean =>
  session?.role === 'owner' || session?.role === 'technician'

export const isOwner = (session: Session | undefined): boolean => session?.role === 'owner'
