import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap } from '../../api/client'
import { shortDate } from '../../domain/dates'
import { deviceRefused, hasPasskeys, makePasskey } from '../../domain/passkey'
import { Plain, Quiet } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'
import { Form } from './Form'
import { useWaysChanged, type Ways } from './useWays'

/** Keys of devices: a finger or a face instead of the password. */
export function Passkeys({ ways }: { ways: Ways }) {
  const [name, setName] = useState('')
  const [password, setPassword] = useState('')
  const changed = useWaysChanged()
  const add = useMutation({
    mutationFn: async () => {
      const asked = await unwrap(api.POST('/api/session/passkeys/ask', { body: { password } }))
      const credential = await makePasskey(asked.options)
      return unwrap(api.POST('/api/session/passkeys', { body: { name, credential } }))
    },
    onSuccess: (found) => {
      setName('')
      setPassword('')
      changed(found)
    },
  })
  const away = useMutation({
    mutationFn: (key: number) =>
      unwrap(api.DELETE('/api/session/passkeys/{key}', { params: { path: { key } } })),
    onSuccess: changed,
  })
  const refused = add.error instanceof ApiError ? add.error.body.fields : {}
  return (
    <section aria-label="Passkeys">
      <h2>Passkeys</h2>
      <List>
        {ways.passkeys.map((each) => (
          <li key={each.id}>
            <span>
              <b>{each.name}</b>{' '}
              <Soft>
                since {shortDate(new Date(each.made_at))}
                {each.used_at ? `, used ${shortDate(new Date(each.used_at))}` : ''}
              </Soft>
            </span>
            <Quiet aria-label={`Take ${each.name} away`} onPress={() => away.mutate(each.id)}>
              Take away
            </Quiet>
          </li>
        ))}
      </List>
      {hasPasskeys() ? (
        <Form
          onSubmit={(event) => {
            event.preventDefault()
            add.mutate()
          }}
        >
          <Soft as="p">
            This device’s finger, face or number, or a security key, instead of the password.
          </Soft>
          <Field label="What to call this device" value={name} onChange={setName} />
          <Field
            label="Your password"
            type="password"
            autoComplete="current-password"
            value={password}
            onChange={setPassword}
            error={refused['password']}
          />
          {add.error && !Object.keys(refused).length ? (
            <Problem>{add.error instanceof ApiError ? add.error.message : deviceRefused(add.error)}</Problem>
          ) : null}
          <Plain type="submit" isDisabled={!name.trim() || !password || add.isPending}>
            Add a passkey
          </Plain>
        </Form>
      ) : (
        <Soft as="p">
          Browsers give passkeys only over https by name, or to localhost. Open Red Tally so to add one.
        </Soft>
      )}
    </section>
  )
}

const List = styled.ul`
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 10px;
    min-height: 48px;
    border-bottom: 1px solid var(--rule);
  }
`
