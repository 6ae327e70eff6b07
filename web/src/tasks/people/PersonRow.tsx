import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { shortDate } from '../../domain/dates'
import { Plain, Quiet } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'
import { MadeLink } from './MadeLink'
import { ROLES, type Role } from './roles'

interface Props {
  person: Schemas['PersonOut']
  /** Of the demo: nothing about them is changed. */
  fixed: boolean
  onChanged: () => unknown
}

/** One person: what they may do, and what an owner may do about them. */
export function PersonRow({ person, fixed, onChanged }: Props) {
  const [open, setOpen] = useState(false)
  const [name, setName] = useState(person.shown_name)
  const [role, setRole] = useState(person.role as Role)
  const [sure, setSure] = useState(false)
  const path = { key: person.id }
  const close = () => {
    setOpen(false)
    setSure(false)
    void onChanged()
  }
  const change = useMutation({
    mutationFn: () =>
      unwrap(api.PUT('/api/people/members/{key}', { params: { path }, body: { role, shown_name: name } })),
    onSuccess: close,
  })
  const remove = useMutation({
    mutationFn: () => unwrap(api.DELETE('/api/people/members/{key}', { params: { path } })),
    onSuccess: close,
  })
  const reset = useMutation({
    mutationFn: () => unwrap(api.POST('/api/people/members/{key}/reset', { params: { path } })),
  })
  const error = change.error ?? remove.error ?? reset.error
  const seen = person.last_in ? `last in ${shortDate(new Date(person.last_in))}` : 'never in yet'
  return (
    <Row>
      <span>
        <b>{person.shown_name}</b> <Soft>{person.you ? 'you' : person.username}</Soft>
        <small>
          {person.role}, {seen}
          {person.second_step ? ', second step on' : ''}
        </small>
      </span>
      {fixed ? null : (
        <Quiet
          aria-expanded={open}
          aria-label={`Change ${person.shown_name}`}
          onPress={() => {
            reset.reset()
            setOpen(!open)
          }}
        >
          {open ? 'Close' : 'Change'}
        </Quiet>
      )}
      {open ? (
        <Open
          onSubmit={(event) => {
            event.preventDefault()
            change.mutate()
          }}
        >
          <Field label="Name, as history shows it" value={name} onChange={setName} />
          <Choice label="Role" value={role} onChange={setRole} options={ROLES} />
          <Presses>
            <Plain type="submit" isDisabled={!name.trim() || change.isPending}>
              Keep this
            </Plain>
            {person.you ? null : (
              <Quiet isDisabled={reset.isPending} onPress={() => reset.mutate()}>
                New password by link
              </Quiet>
            )}
            {sure ? (
              <Plain isDisabled={remove.isPending} onPress={() => remove.mutate()}>
                {person.you ? 'Yes, I leave' : `Yes, remove ${person.shown_name}`}
              </Plain>
            ) : (
              <Quiet onPress={() => setSure(true)}>{person.you ? 'Leave this workshop' : 'Remove'}</Quiet>
            )}
          </Presses>
          {sure ? (
            <Soft>They are signed out of this workshop at once. Everything they did keeps their name.</Soft>
          ) : null}
          {reset.data ? (
            <MadeLink
              link={reset.data}
              words={`With it ${person.shown_name} sets a new password; codes and passkeys they lost no longer stand in the way.`}
            />
          ) : null}
          {error ? <Problem>{error.message}</Problem> : null}
        </Open>
      ) : null}
    </Row>
  )
}

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 4px 12px;
  padding: 10px 0;
  border-bottom: 1px solid var(--rule);
  b {
    font: 600 17px var(--slab);
  }
  small {
    display: block;
    font-size: 14px;
    color: var(--soft);
  }
`
const Open = styled.form`
  grid-column: 1 / -1;
  display: grid;
  gap: 14px;
  padding: 8px 0 12px;
`
const Presses = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
`
