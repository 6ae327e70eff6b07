import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, ApiError, unwrap } from '../../api/client'
import { Main } from '../../ui/Button'
import { isSame, NewPassword } from '../../ui/NewPassword'
import { Problem } from '../../ui/Page'
import { Cover, CoverForm, CoverTitle } from './Cover'
import { tokenHere, useLink } from './JoinPage'

/** A new password by link. */
export function ResetPage() {
  const [token] = useState(tokenHere)
  const [fresh, setFresh] = useState({ fresh: '', again: '' })
  const link = useLink(token)
  const navigate = useNavigate()
  const change = useMutation({
    mutationFn: () => unwrap(api.POST('/api/people/links/password', { body: { token, new: fresh.fresh } })),
  })
  const refused = change.error instanceof ApiError ? change.error.body.fields : {}
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
            if (isSame(fresh)) change.mutate()
          }}
        >
          <CoverTitle>A new password for {link.data.username}</CoverTitle>
          <input type="text" autoComplete="username" value={link.data.username} readOnly hidden />
          <NewPassword value={fresh} onChange={setFresh} error={refused['new']} />
          {change.error && !Object.keys(refused).length ? <Problem>{change.error.message}</Problem> : null}
          <Main type="submit" isDisabled={change.isPending || !isSame(fresh)}>
            Set it
          </Main>
        </CoverForm>
      ) : null}
    </Cover>
  )
}
