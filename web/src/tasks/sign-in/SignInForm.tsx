import { useState, type FormEvent } from 'react'
import styled from 'styled-components'
import { ApiError } from '../../api/client'
import { useSignIn } from '../../api/session'
import { Main } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Page'

interface Props {
  onDone?: () => void
  start?: { username: string; password: string } | null
}

export function SignInForm({ onDone, start }: Props) {
  const [username, setUsername] = useState(start?.username ?? '')
  const [password, setPassword] = useState(start?.password ?? '')
  const signIn = useSignIn()
  const submit = (event: FormEvent) => {
    event.preventDefault()
    signIn.mutate({ username, password }, onDone ? { onSuccess: onDone } : undefined)
  }
  return (
    <Form onSubmit={submit}>
      <Field
        label="Name"
        name="username"
        autoComplete="username"
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
    </Form>
  )
}

const Form = styled.form`
  display: flex;
  flex-direction: column;
  gap: 18px;
`
