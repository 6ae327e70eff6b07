import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { useEnter, useSession } from '../../api/session'
import { Plain, Quiet } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'

interface Props {
  demo: boolean
  demoHere: boolean
  onChanged: () => unknown
}

/** The workshop itself: its name, one more of them, and the demo sent away. */
export function TheWorkshop({ demo, demoHere, onChanged }: Props) {
  const session = useSession().data
  const queries = useQueryClient()
  const navigate = useNavigate()
  const enter = useEnter()
  const [name, setName] = useState(session?.workshop?.name ?? '')
  const [other, setOther] = useState('')
  const [sure, setSure] = useState(false)
  const rename = useMutation({
    mutationFn: () => unwrap(api.PUT('/api/people/workshop', { body: { name } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.session }),
  })
  const begin = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/people/workshops', {
          body: { workshop: other, length_unit: session?.workshop?.length_unit ?? 'in' },
        }),
      ),
    onSuccess: (made) => {
      enter(made, true)
      void navigate('/')
    },
  })
  const away = useMutation({
    mutationFn: () => unwrap(api.DELETE('/api/demo')),
    onSuccess: () => {
      if (demo) location.assign('/')
      void onChanged()
    },
  })
  const error = rename.error ?? begin.error ?? away.error
  return (
    <Section aria-label="The workshop">
      <h2>The workshop</h2>
      {demo ? null : (
        <>
          <form
            onSubmit={(event) => {
              event.preventDefault()
              rename.mutate()
            }}
          >
            <Field label="Its name" value={name} onChange={setName} />
            <Plain
              type="submit"
              isDisabled={!name.trim() || name.trim() === session?.workshop?.name || rename.isPending}
            >
              Rename
            </Plain>
          </form>
          <form
            onSubmit={(event) => {
              event.preventDefault()
              begin.mutate()
            }}
          >
            <Field label="Begin another workshop, apart from this one" value={other} onChange={setOther} />
            <Plain type="submit" isDisabled={!other.trim() || begin.isPending}>
              Begin
            </Plain>
          </form>
        </>
      )}
      {demoHere ? (
        <Demo>
          <p>
            The demo workshop {demo ? 'is this one' : 'is still here'}.{' '}
            <Soft>Its drums and accounts go for good; your own workshops are not touched.</Soft>
          </p>
          {sure ? (
            <span>
              <Plain isDisabled={away.isPending} onPress={() => away.mutate()}>
                Yes, remove the demo
              </Plain>
              <Quiet onPress={() => setSure(false)}>Leave it</Quiet>
            </span>
          ) : (
            <Quiet onPress={() => setSure(true)}>Remove the demo</Quiet>
          )}
        </Demo>
      ) : null}
      {error ? <Problem>{error.message}</Problem> : null}
    </Section>
  )
}

const Section = styled.section`
  form {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: end;
    gap: 12px;
    padding: 12px 0;
  }
`
const Demo = styled.div`
  display: grid;
  justify-items: start;
  gap: 6px;
  padding: 12px 0;
  border-top: 1px solid var(--rule);
`
