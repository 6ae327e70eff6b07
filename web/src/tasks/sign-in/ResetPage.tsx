import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, ApiError, unwrap } from '../../api/client'
import { Main } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Page'
import { Cover, CoverForm, CoverTitle } from './Cover'
import { tokenHere, useLink } from './JoinPage'

/** A new password by link. */
export function ResetPage() {
  const [token] = useState(tokenHere)
  const [fresh, setFresh] = useState('')
  const [again, setAgain] = useState('')
  const link = useLink(token)
  const navigate = useNavigate()
  const change = useMutation({
    mutationFn: () => unwrap(api.POST('/api/people/links/password', { body: { token, new: fresh } })),
  })
  const refused = change.error instanceof ApiError ? change.error.body.fields : {}
  const differs = again !== '' && again !== fresh
  return (
    <Cover words="A new password. Every device that was signed in with the old one is signed out by it.">
      {token.length < 10 ? <Problem>The link is not whole. Open it as it was sent.</Problem> : null}
      {link.error && !change.isSuccess ? <Problem>{link.error.message}</Problem> : null}
      {change.isSuccess ? (
        <>
          <CoverTitle>It is set</CoverTitle>
          <Main onPress={() => void navigate('/', { replace: true })}>Sign in with it</Main>
        </>
      ) : link.data ? (
        <CoverForm
          onSubmit={(event) => {
            event.preventDefault()
            if (fresh && fresh === again) change.mutate()
          }}
        >
          <CoverTitle>A new password for {link.data.username}</CoverTitle>
          <input type="text" autoComplete="username" value={link.data.username} readOnly hidden />
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
          <Main type="submit" isDisabled={change.isPending || !fresh || again !== fresh}>
            Set it
          </Main>
        </CoverForm>
      ) : null}
    </Cover>
  )
}
