import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useBlocker } from 'react-router'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession, type Session } from '../../api/session'
import { Main, Plain, Quiet } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'
import { Head, Page, Problem, Soft } from '../../ui/Page'
import { asWays, MOMENTS, NUMBERS, PLAIN, type Ways } from './choices'
import { SchoolChoice } from '../../ui/SchoolChoice'
import { Waiting } from '../../ui/Waiting'

/** Where the trade disagrees, each workshop has its way. */
export function WaysPage() {
  const session = useSession()
  const schools = useQuery({
    queryKey: keys.schools,
    queryFn: () => unwrap(api.GET('/api/workshop/schools')),
    staleTime: Infinity,
  })
  if (schools.error) return <Problem>{schools.error.message}</Problem>
  if (!session.data?.workshop || !schools.data) return <Waiting />
  return <Form session={session.data} ways={session.data.workshop} schools={schools.data} />
}

interface Props {
  session: Session
  ways: Ways
  schools: Schemas['SchoolOut'][]
}

function useWays(ways: Ways) {
  const queries = useQueryClient()
  const [form, setForm] = useState<Record<string, string>>(() =>
    Object.fromEntries(Object.entries(ways).map(([name, value]) => [name, String(value)])),
  )
  const save = useMutation({
    mutationFn: () => unwrap(api.PUT('/api/workshop/ways', { body: asWays(form) })),
    onSuccess: (workshop) => {
      queries.setQueryData<Session>(keys.session, (old) => (old ? { ...old, workshop } : old))
      void queries.invalidateQueries({ queryKey: keys.today })
    },
  })
  const set = (name: string) => (value: string) => {
    save.reset()
    setForm({ ...form, [name]: value })
  }
  const changed = Object.entries(ways).some(([name, value]) => form[name] !== String(value))
  return { form, set, save, changed }
}

function Form({ session, ways, schools }: Props) {
  const { form, set, save, changed } = useWays(ways)
  const leaving = useBlocker(changed && mayChange(session))
  const stay = () => leaving.state === 'blocked' && leaving.reset()
  const go = () => leaving.state === 'blocked' && leaving.proceed()
  const refused = save.error instanceof ApiError ? save.error.body : null
  const field = (name: string) => ({ value: form[name] ?? '', onChange: set(name) })
  return (
    <Page>
      <Head>
        <h1>Workshop’s ways</h1>
        <Soft>
          {ways.name}. Each job may do otherwise; jobs already in hand keep the ways they began with.
        </Soft>
      </Head>
      <Sheet
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
        noValidate
      >
        {MOMENTS.map(([moment, title]) => (
          <Section key={moment} aria-label={title}>
            <h2>{title}</h2>
            <div>
              {schools
                .filter((each) => each.moment === moment)
                .map((each) => (
                  <SchoolChoice key={each.way} school={each} {...field(each.way)} />
                ))}
              {PLAIN.filter((each) => each.moment === moment).map(({ way, label, options }) => (
                <Choice
                  key={way}
                  label={label}
                  {...field(way)}
                  options={options.map(([value, words]) => ({ value, words }))}
                />
              ))}
              <Numbers>
                {NUMBERS.filter((each) => each.moment === moment).map(({ way, label, likely }) => (
                  <Field
                    key={way}
                    label={label}
                    {...field(way)}
                    inputMode="decimal"
                    likely={likely ?? null}
                    error={refused?.fields[way]}
                  />
                ))}
              </Numbers>
            </div>
          </Section>
        ))}
        <Foot>
          {refused ? <Problem>{refused.message}</Problem> : null}
          {mayChange(session) ? (
            <Main type="submit" isDisabled={save.isPending}>
              {save.isSuccess ? 'Kept' : 'Keep these ways'}
            </Main>
          ) : (
            <Soft>Your role looks on only.</Soft>
          )}
        </Foot>
      </Sheet>
      <Dialog title="Keep these ways?" open={leaving.state === 'blocked'} onClose={stay}>
        <p>What you changed is not kept yet.</p>
        <Answers>
          <Plain
            autoFocus
            isDisabled={save.isPending}
            onPress={() => save.mutate(undefined, { onSuccess: go, onError: stay })}
          >
            Keep them
          </Plain>
          <Plain onPress={go}>Leave them as they were</Plain>
          <Quiet onPress={stay}>Stay here</Quiet>
        </Answers>
      </Dialog>
    </Page>
  )
}

const Sheet = styled.form`
  display: contents;
`
const Section = styled.section`
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr);
  gap: 0 28px;
  padding: 18px 28px;
  label,
  input {
    scroll-margin-bottom: 120px; /* the foot stays in sight and must not cover what has the focus */
  }
  & + & {
    border-top: 1px solid var(--rule);
  }
  h2 {
    font-size: 20px;
    line-height: 1.25;
  }
  > div {
    display: flex;
    flex-direction: column;
    gap: 20px;
    max-width: 880px;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    gap: 12px;
    padding: 16px;
  }
`
const Numbers = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 16px 28px;
  &:empty {
    display: none;
  }
`
const Answers = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
`
const Foot = styled.footer`
  position: sticky;
  bottom: var(--above-rail);
  padding: 12px 28px 14px;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  @media (max-width: 900px) {
    padding: 10px 16px;
  }
`
