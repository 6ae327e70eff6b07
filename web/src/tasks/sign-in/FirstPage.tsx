import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ApiError, unwrap } from '../../api/client'
import { useEnter } from '../../api/session'
import { Main, Quiet } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Page'
import { Cover, CoverForm, CoverTitle } from './Cover'
import { isFull, NewAccount } from './NewAccount'

const UNITS = [
  { value: 'in', words: 'inches' },
  { value: 'mm', words: 'millimetres' },
] as const

/** Nobody has a workshop here yet: make it, with the word that was printed where Red Tally was started. */
export function FirstPage({ onBack }: { onBack: (() => void) | null }) {
  const [word, setWord] = useState('')
  const [workshop, setWorkshop] = useState('')
  const [unit, setUnit] = useState<'in' | 'mm'>('in')
  const [account, setAccount] = useState({ username: '', shown_name: '', password: '' })
  const enter = useEnter()
  const make = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/people/first', { body: { word, workshop, length_unit: unit, ...account } })),
    onSuccess: (session) => enter(session, true),
  })
  const refused = make.error instanceof ApiError ? make.error.body.fields : {}
  return (
    <Cover words="Your workshop’s own book. Begin it once; the people who work with you are invited from inside.">
      <CoverForm
        onSubmit={(event) => {
          event.preventDefault()
          make.mutate()
        }}
      >
        <CoverTitle>Begin your workshop</CoverTitle>
        <Field
          label="The word from the terminal"
          value={word}
          onChange={setWord}
          error={refused['word']}
          hint="Four groups of four, printed where Red Tally was started. Good once."
          autoComplete="off"
        />
        <Field
          label="Name of the workshop"
          autoComplete="organization"
          value={workshop}
          onChange={setWorkshop}
          error={refused['workshop']}
        />
        <Choice label="Drums are measured in" value={unit} onChange={setUnit} options={UNITS} />
        <NewAccount value={account} onChange={setAccount} refused={refused} />
        {make.error && !Object.keys(refused).length ? <Problem>{make.error.message}</Problem> : null}
        <Main
          type="submit"
          isDisabled={make.isPending || !word.trim() || !workshop.trim() || !isFull(account)}
        >
          Begin
        </Main>
        {onBack ? <Quiet onPress={onBack}>Back to signing in</Quiet> : null}
      </CoverForm>
    </Cover>
  )
}
