import { useMutation } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import { api, ApiError, unwrap } from '../../api/client'
import { usePasskeySignIn, useSession, useSignIn } from '../../api/session'
import { deviceRefused, hasPasskeys } from '../../domain/passkey'
import { Main, Plain, Quiet } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'
import { CodeForm } from './CodeForm'
import { CoverForm } from './Cover'

interface Props {
  onDone?: () => void
  start?: { username: string; password: string } | null
}

/** Name and password, and the code where a second step is on; or a key of the device instead of both. */
export function SignInForm({ onDone, start }: Props) {
  const [username, setUsername] = useState(start?.username ?? '')
  const [password, setPassword] = useState(start?.password ?? '')
  const mail = useSession().data?.mail ?? false
  const signIn = useSignIn()
  const byKey = usePasskeySignIn()
  const forgot = useMutation({
    mutationFn: () => unwrap(api.POST('/api/people/forgot', { body: { username } })),
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    signIn.mutate({ username, password }, { onSuccess: (session) => session.username && onDone?.() })
  }
  if (signIn.data?.second_step)
    return <CodeForm onBack={() => signIn.reset()} {...(onDone ? { onDone } : {})} />
  const keyError = byKey.error
  return (
    <CoverForm onSubmit={submit}>
      <Field
        label="Name"
        name="username"
        autoComplete="username webauthn"
        value={username}
        onChange={setUsername}
        required
      />
      <Field
        label="Password"
        name="password"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={setPassword}
        required
      />
      {signIn.error instanceof ApiError ? <Problem>{signIn.error.body.message}</Problem> : null}
      <Main type="submit" isDisabled={signIn.isPending || !username || !password}>
        {signIn.isPending ? 'Signing in' : 'Sign in'}
      </Main>
      {hasPasskeys() ? (
        <Plain
          isDisabled={byKey.isPending}
          onPress={() => byKey.mutate(undefined, onDone ? { onSuccess: onDone } : undefined)}
        >
          Sign in with a passkey
        </Plain>
      ) : null}
      {keyError ? (
        <Problem>{keyError instanceof ApiError ? keyError.body.message : deviceRefused(keyError)}</Problem>
      ) : null}
      {mail ? (
        <Quiet isDisabled={!username || forgot.isPending} onPress={() => forgot.mutate()}>
          Forgot the password: mail me a link
        </Quiet>
      ) : null}
      {forgot.isSuccess ? (
        <Soft role="status">If {username} has a mail address here, a link is on its way.</Soft>
      ) : null}
    </CoverForm>
  )
}
