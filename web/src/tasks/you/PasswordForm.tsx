import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ApiError, unwrap } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { isSame, NewPassword } from '../../ui/NewPassword'
import { Problem, Soft } from '../../ui/Page'
import { Form } from './Form'

/** Another password. */
export function PasswordForm() {
  const [old, setOld] = useState('')
  const [fresh, setFresh] = useState({ fresh: '', again: '' })
  const change = useMutation({
    mutationFn: () => unwrap(api.POST('/api/session/password', { body: { old, new: fresh.fresh } })),
    onSuccess: () => {
      setOld('')
      setFresh({ fresh: '', again: '' })
    },
  })
  const refused = change.error instanceof ApiError ? change.error.body.fields : {}
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault()
        if (old && isSame(fresh)) change.mutate()
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
      <NewPassword value={fresh} onChange={setFresh} error={refused['new']} />
      {change.error && !Object.keys(refused).length ? <Problem>{change.error.message}</Problem> : null}
      {change.isSuccess ? <Soft role="status">Changed. Every other device is signed out by it.</Soft> : null}
      <Plain type="submit" isDisabled={!old || !isSame(fresh) || change.isPending}>
        Change the password
      </Plain>
    </Form>
  )
}
