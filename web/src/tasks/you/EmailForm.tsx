import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ApiError, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { Plain } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'
import { Form } from './Form'

/** Where a link to a new password is mailed. */
export function EmailForm({ email }: { email: string }) {
  const [value, setValue] = useState(email)
  const queries = useQueryClient()
  const keep = useMutation({
    mutationFn: () => unwrap(api.PUT('/api/session/email', { body: { email: value } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.session }),
  })
  const refused = keep.error instanceof ApiError ? keep.error.body.fields : {}
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault()
        keep.mutate()
      }}
    >
      <Field
        label="Mail address, for a forgotten password"
        inputMode="email"
        autoComplete="email"
        value={value}
        onChange={setValue}
        error={refused['email']}
        hint="Only a link you ask for goes there."
      />
      {keep.error && !Object.keys(refused).length ? <Problem>{keep.error.message}</Problem> : null}
      {keep.isSuccess ? <Soft role="status">Kept.</Soft> : null}
      <Plain type="submit" isDisabled={value === email || keep.isPending}>
        Keep it
      </Plain>
    </Form>
  )
}
