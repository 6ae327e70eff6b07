import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession, type Session } from '../../api/session'
import { Main } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Head, Page, Problem, Soft } from '../../ui/Page'
import { Select } from '../../ui/Select'
import { CHOICES, NUMBERS, type Ways } from './choices'

/** Where the trade disagrees, each workshop has its way. */
export function WaysPage() {
  const session = useSession()
  return session.data?.workshop ? <Form session={session.data} ways={session.data.workshop} /> : null
}

function Form({ session, ways }: { session: Session; ways: Ways }) {
  const queries = useQueryClient()
  const may = mayChange(session)
  const [form, setForm] = useState<Record<string, string>>(() =>
    Object.fromEntries(Object.entries(ways).map(([name, value]) => [name, String(value)])),
  )
  const save = useMutation({
    mutationFn: () => {
      const numbers = Object.fromEntries(
        [...Object.keys(NUMBERS), 'step_32'].map((name) => [
          name,
          Number((form[name] ?? '').replace(',', '.')),
        ]),
      )
      const body = {
        ...form,
        ...numbers,
        grease_dry_threads: form['grease_dry_threads'] === 'true',
        leave_above: form['leave_above'] === 'true',
        tap_round: form['tap_round'] === 'true',
      } as unknown as Schemas['WaysIn']
      return unwrap(api.PUT('/api/workshop/ways', { body }))
    },
    onSuccess: (workshop) => {
      queries.setQueryData<Session>(keys.session, (old) => (old ? { ...old, workshop } : old))
      void queries.invalidateQueries({ queryKey: keys.today })
    },
  })
  const refused = save.error instanceof ApiError ? save.error.body : null
  const set = (name: string) => (value: string) => setForm({ ...form, [name]: value })
  return (
    <Page>
      <Head>
        <h1>Workshop’s ways</h1>
        <Soft>{ways.name}. Jobs already in hand keep the ways they began with.</Soft>
      </Head>
      <Grid>
        {Object.entries(CHOICES).map(([name, { label, options }]) => (
          <Select key={name} label={label} value={form[name] ?? ''} onChange={set(name)} options={options} />
        ))}
        <Select
          label="Grease on threads"
          value={form['grease_dry_threads'] ?? 'true'}
          onChange={set('grease_dry_threads')}
          options={[
            ['true', 'a spot when dry or gritty'],
            ['false', 'none'],
          ]}
        />
        <Select
          label="New heads are left"
          value={form['leave_above'] ?? 'true'}
          onChange={set('leave_above')}
          options={[
            ['true', 'above pitch, by what they will drop'],
            ['false', 'at pitch'],
          ]}
        />
        <Select
          label="Rods are tapped"
          value={form['tap_round'] ?? 'true'}
          onChange={set('tap_round')}
          options={[
            ['true', 'straight round'],
            ['false', 'in the order they are turned'],
          ]}
        />
        {Object.entries(NUMBERS).map(([name, label]) => (
          <Field
            key={name}
            label={label}
            value={form[name] ?? ''}
            onChange={set(name)}
            inputMode="decimal"
            error={refused?.fields[name]}
          />
        ))}
      </Grid>
      {refused ? <Problem>{refused.message}</Problem> : null}
      <Foot>
        {may ? (
          <Main onPress={() => save.mutate()} isDisabled={save.isPending}>
            {save.isSuccess ? 'Kept' : 'Keep these ways'}
          </Main>
        ) : (
          <Soft>Your role looks on only.</Soft>
        )}
      </Foot>
    </Page>
  )
}

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 22px 32px;
  padding: 20px 28px;
  max-width: 1100px;
`
const Foot = styled.footer`
  padding: 12px 28px 24px;
`
