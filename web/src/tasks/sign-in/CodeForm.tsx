import { useState } from 'react'
import { useCode } from '../../api/session'
import { Main, Quiet } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Page'
import { CoverForm, CoverTitle } from './Cover'

/** The second step: the code of the app, or a spare one. */
export function CodeForm({ onBack, onDone }: { onBack: () => void; onDone?: () => void }) {
  const [code, setCode] = useState('')
  const send = useCode()
  return (
    <CoverForm
      onSubmit={(event) => {
        event.preventDefault()
        if (code.trim()) send.mutate(code, onDone ? { onSuccess: onDone } : undefined)
      }}
    >
      <CoverTitle>The second step</CoverTitle>
      <Field
        label="Code"
        autoComplete="one-time-code"
        value={code}
        onChange={setCode}
        hint="The six figures your app shows now, or one of your spare codes."
        proposed
      />
      {send.error ? <Problem>{send.error.message}</Problem> : null}
      <Main type="submit" isDisabled={send.isPending || !code.trim()}>
        Go on
      </Main>
      <Quiet onPress={onBack}>Back to name and password</Quiet>
    </CoverForm>
  )
}
