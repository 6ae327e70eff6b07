import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ApiError, unwrap } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'
import { Form } from './Form'

/** Another password. */
export function PasswordForm() {
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
  const refused = change.error instanceof ApiError ? change.error.body.fields : {}
  const differs = again !== '' && again !== fresh
  return (
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
      {change.isSuccess ? <Soft role="status">Changed. Every other device is signed out by it.</Soft> : null}
      <Plain type="submit" isDisabled={!old || !fresh || again !== fresh || change.isPending}>
        Change the password
      </Plain>
    </Form>
  )
}
