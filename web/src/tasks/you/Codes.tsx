import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { Plain } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'
import { Form } from './Form'
import { SquareCode } from './SquareCode'
import { useWaysChanged, type Ways } from './useWays'

/** The second step by codes of an app. */
export function Codes({ ways }: { ways: Ways }) {
  const [password, setPassword] = useState('')
  const [code, setCode] = useState('')
  const queries = useQueryClient()
  const changed = useWaysChanged()
  const begin = useMutation({
    mutationFn: () => unwrap(api.POST('/api/session/codes/begin', { body: { password } })),
    onSuccess: () => setPassword(''),
  })
  const on = useMutation({
    mutationFn: () => unwrap(api.POST('/api/session/codes', { body: { code } })),
    onSuccess: () => {
      begin.reset()
      setCode('')
      return queries.invalidateQueries({ queryKey: keys.signInWays })
    },
  })
  const off = useMutation({
    mutationFn: () => unwrap(api.POST('/api/session/codes/off', { body: { password } })),
    onSuccess: (found) => {
      setPassword('')
      on.reset()
      changed(found)
    },
  })
  const error = (ways.codes ? off.error : null) ?? (begin.data ? on.error : begin.error)
  const refused = error instanceof ApiError ? error.body.fields : {}
  const known = (
    <Field
      label="Your password"
      type="password"
      autoComplete="current-password"
      value={password}
      onChange={setPassword}
      error={refused['password']}
    />
  )
  const problem = error && !Object.keys(refused).length ? <Problem>{error.message}</Problem> : null
  if (begin.data && !ways.codes)
    return (
      <section aria-label="Codes">
        <h2>Codes of an app</h2>
        <Form
          onSubmit={(event) => {
            event.preventDefault()
            on.mutate()
          }}
        >
          <SquareCode rows={begin.data.modules} />
          <p>
            Scan it with the app, or type <Secret>{begin.data.secret.match(/.{4}/g)?.join(' ')}</Secret>
          </p>
          <Field
            label="The code it shows now"
            autoComplete="one-time-code"
            inputMode="numeric"
            value={code}
            onChange={setCode}
          />
          {problem}
          <Plain type="submit" isDisabled={code.trim().length < 6 || on.isPending}>
            Turn codes on
          </Plain>
        </Form>
      </section>
    )
  return (
    <section aria-label="Codes">
      <h2>Codes of an app</h2>
      {on.data ? (
        <Spare role="status">
          <p>
            Codes are on. These are for when the app is gone: each good once, shown this once. Print them.
          </p>
          <ul>
            {on.data.spare.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </Spare>
      ) : null}
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          if (ways.codes) off.mutate()
          else begin.mutate()
        }}
      >
        <Soft as="p">
          {ways.codes
            ? `On; ${ways.spare_left} spare ${ways.spare_left === 1 ? 'code' : 'codes'} left.`
            : 'Off. With it, signing in asks for a code beside the password.'}
        </Soft>
        {known}
        {problem}
        <Plain type="submit" isDisabled={!password || begin.isPending || off.isPending}>
          {ways.codes ? 'Turn codes off' : 'Set up codes'}
        </Plain>
      </Form>
    </section>
  )
}

const Secret = styled.code`
  font: 500 15px var(--mono);
  overflow-wrap: anywhere;
`
const Spare = styled.div`
  padding: 12px 14px;
  margin-top: 12px;
  background: var(--lifted);
  border-left: 4px solid var(--ink);
  ul {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 4px 18px;
    padding-top: 8px;
    font: 500 16px var(--mono);
  }
`
