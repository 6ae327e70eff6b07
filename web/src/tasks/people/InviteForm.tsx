import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Page'
import { MadeLink } from './MadeLink'
import { ROLES, type Role } from './roles'

/** A link into the workshop, to copy; mailed too where mail is set. */
export function InviteForm({ mail, onMade }: { mail: boolean; onMade: () => unknown }) {
  const [name, setName] = useState('')
  const [email, setEmail] = useState('')
  const [role, setRole] = useState<Role>('technician')
  const make = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/people/invitations', { body: { role, shown_name: name, email } })),
    onSuccess: () => {
      setName('')
      setEmail('')
      void onMade()
    },
  })
  const refused = make.error instanceof ApiError ? make.error.body.fields : {}
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault()
        make.mutate()
      }}
    >
      <Field label="Who (they may change it)" value={name} onChange={setName} error={refused['shown_name']} />
      {mail ? (
        <Field
          label="Mail it to"
          inputMode="email"
          value={email}
          onChange={setEmail}
          error={refused['email']}
          hint="Empty: no mail; you send the link yourself."
        />
      ) : null}
      <Choice label="Role" value={role} onChange={setRole} options={ROLES} />
      {make.error && !Object.keys(refused).length ? <Problem>{make.error.message}</Problem> : null}
      <Plain type="submit" isDisabled={make.isPending}>
        Make the link
      </Plain>
      {make.data ? <MadeLink link={make.data} words="Send it to who is invited." /> : null}
    </Form>
  )
}

const Form = styled.form`
  display: grid;
  justify-items: stretch;
  gap: 14px;
  padding: 12px 0 20px;
  > button {
    justify-self: start;
  }
`
