import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap } from '../api/client'
import { Main, Plain } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Field } from '../ui/Field'
import { Problem, Soft } from '../ui/Page'

/** One’s own sign-in: another password, and out everywhere else. */
export function SignInSheet({ onClose }: { onClose: () => void }) {
  const [old, setOld] = useState('')
  const [fresh, setFresh] = useState('')
  const [again, setAgain] = useState('')
  const change = useMutation({
    mutationFn: () => unwrap(api.POST('/api/session/password', { body: { old, new: fresh } })),
    onSuccess: () => {
      setOld('')
      setFresh('')
      setAgain('')
    },
  })
  const out = useMutation({ mutationFn: () => unwrap(api.POST('/api/session/elsewhere')) })
  const refused = change.error instanceof ApiError ? change.error.body.fields : {}
  const differs = again !== '' && again !== fresh
  return (
    <Dialog title="Your sign-in" open onClose={onClose}>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          if (old && fresh && again === fresh) change.mutate()
        }}
      >
        <Field
          label="Password now"
          type="password"
          autoComplete="current-password"
          value={old}
          onChange={setOld}
          error={refused['old']}
        />
        <Field
          label="New password"
          type="password"
          autoComplete="new-password"
          value={fresh}
          onChange={setFresh}
          error={refused['new']}
          hint="Ten characters or more; a few words are best."
        />
        <Field
          label="New password once more"
          type="password"
          autoComplete="new-password"
          value={again}
          onChange={setAgain}
          error={differs ? 'Not the same.' : undefined}
        />
        {change.error && !Object.keys(refused).length ? <Problem>{change.error.message}</Problem> : null}
        {change.isSuccess ? (
          <Soft role="status">Changed. Every other device is signed out by it.</Soft>
        ) : null}
        <Main type="submit" isDisabled={!old || !fresh || again !== fresh || change.isPending}>
          Change the password
        </Main>
      </Form>
      <div>
        <Plain isDisabled={out.isPending} onPress={() => out.mutate()}>
          Sign out everywhere else
        </Plain>
      </div>
      {out.data ? (
        <Soft role="status">
          {out.data.ended
            ? `${out.data.ended} other ${out.data.ended === 1 ? 'device is' : 'devices are'} signed out.`
            : 'No other device is signed in.'}
        </Soft>
      ) : null}
      {out.error ? <Problem>{out.error.message}</Problem> : null}
    </Dialog>
  )
}

const Form = styled.form`
  display: grid;
  gap: 12px;
`
