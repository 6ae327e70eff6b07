import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { useEnter, useSession } from '../../api/session'
import { Main, Plain, Quiet } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'
import { Cover, CoverForm, CoverTitle } from './Cover'
import { isFull, NewAccount } from './NewAccount'
import { SignInForm } from './SignInForm'

/** What stands after the # of the address; it was sent to no server by opening it. */
export const tokenHere = (): string => location.hash.slice(1)

export const useLink = (token: string) =>
  useQuery({
    queryKey: ['link', token],
    queryFn: () => unwrap(api.POST('/api/people/links/look', { body: { token } })),
    enabled: token.length > 9,
    staleTime: Infinity,
    retry: false,
  })

const AS = { owner: 'as an owner', technician: 'as a technician', viewer: 'to look' } as Partial<
  Record<string, string>
>

/** An invitation was opened: come in with a new account, or with the one you have. */
export function JoinPage() {
  const [token] = useState(tokenHere)
  const link = useLink(token)
  const session = useSession()
  const navigate = useNavigate()
  const [mine, setMine] = useState(false)
  const words = link.data ? (
    <>
      {link.data.made_by} invites you to {link.data.workshop}, {AS[link.data.role]}.
    </>
  ) : (
    'An invitation.'
  )
  const inside = () => void navigate('/', { replace: true })
  return (
    <Cover words={words}>
      {token.length < 10 ? <Problem>The link is not whole. Open it as it was sent.</Problem> : null}
      {link.error ? <Problem>{link.error.message}</Problem> : null}
      {!link.data || session.isPending ? null : session.data?.username ? (
        <AsYou token={token} link={link.data} session={session.data} onDone={inside} />
      ) : mine ? (
        <>
          <CoverTitle>Sign in first</CoverTitle>
          <SignInForm />
          <Quiet onPress={() => setMine(false)}>I have no account here</Quiet>
        </>
      ) : (
        <AsNew token={token} link={link.data} onDone={inside} onMine={() => setMine(true)} />
      )}
    </Cover>
  )
}

interface AsYouProps {
  token: string
  link: Schemas['LinkSeen']
  session: Schemas['SessionOut']
  onDone: () => void
}

function AsYou({ token, link, session, onDone }: AsYouProps) {
  const enter = useEnter()
  const join = useMutation({
    mutationFn: () => unwrap(api.POST('/api/people/links/join-as-you', { body: { token } })),
    onSuccess: (entered) => {
      enter(entered, true)
      onDone()
    },
  })
  return (
    <>
      <CoverTitle>Come in as {session.shown_name}</CoverTitle>
      <p>
        You are signed in as {session.username}. {link.workshop} comes beside {session.workshop?.name}; you
        switch between them behind your initials.
      </p>
      {join.error ? <Problem>{join.error.message}</Problem> : null}
      <Main isDisabled={join.isPending} onPress={() => join.mutate()}>
        Come in
      </Main>
      <Plain onPress={onDone}>Not now</Plain>
    </>
  )
}

interface AsNewProps {
  token: string
  link: Schemas['LinkSeen']
  onDone: () => void
  onMine: () => void
}

function AsNew({ token, link, onDone, onMine }: AsNewProps) {
  const [account, setAccount] = useState({ username: '', shown_name: link.shown_name, password: '' })
  const enter = useEnter()
  const join = useMutation({
    mutationFn: () => unwrap(api.POST('/api/people/links/join', { body: { token, ...account } })),
    onSuccess: (session) => {
      enter(session, true)
      onDone()
    },
  })
  const refused = join.error instanceof ApiError ? join.error.body.fields : {}
  return (
    <CoverForm
      onSubmit={(event) => {
        event.preventDefault()
        join.mutate()
      }}
    >
      <CoverTitle>Come in</CoverTitle>
      <NewAccount value={account} onChange={setAccount} refused={refused} />
      {join.error && !Object.keys(refused).length ? <Problem>{join.error.message}</Problem> : null}
      <Main type="submit" isDisabled={join.isPending || !isFull(account)}>
        Come in
      </Main>
      <Quiet onPress={onMine}>I have an account here already</Quiet>
      <Soft>The link is good once.</Soft>
    </CoverForm>
  )
}
