import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { shortDate, soon } from '../../domain/dates'
import { newId } from '../../domain/ids'
import { Key, Main } from '../../ui/Button'
import { DayField } from '../../ui/DayField'
import { Field } from '../../ui/Field'
import { Empty, Head, Owed, Page, Problem, Soft } from '../../ui/Page'
import { Select } from '../../ui/Select'
import { useKeys } from '../../ui/useKeys'

type Line = Schemas['CallOutLine']

const MINUTES = ['5', '8', '10', '12', '15', '20', '30', '45', '60']

function stateOf(line: Line) {
  const left = `${line.owing} ${line.owing === 1 ? 'thing' : 'things'}`
  switch (line.state) {
    case 'coming':
      return line.show_at ? soon(new Date(line.show_at)) : 'not begun'
    case 'going-on':
      return 'going on'
    case 'over':
      return line.owing ? <Owed>{left} left, no note yet</Owed> : 'all put right'
    case 'reported':
      return line.owing ? <Owed>{left} reported, not answered</Owed> : 'reported'
    case 'answered':
      return 'answered'
  }
}

function Begin() {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const id = useRef(newId())
  const [query] = useSearchParams()
  const kits = useQuery({ queryKey: keys.kits, queryFn: () => unwrap(api.GET('/api/kits')) })
  const [asked, setAsked] = useState({ kit: query.get('kit') ?? '', at: '', minutes: '12', show: '' })
  const set = (name: keyof typeof asked) => (value: string) => setAsked({ ...asked, [name]: value })
  const kit = asked.kit || String(kits.data?.[0]?.id ?? '')
  const start = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/callouts', {
          body: {
            id: id.current,
            kit: Number(kit),
            at: asked.at,
            minutes: Number(asked.minutes),
            show_at: asked.show ? new Date(asked.show).toISOString() : null,
          },
        }),
      ),
    onSuccess: (made) => {
      queries.setQueryData(keys.callout(made.id), made)
      void queries.invalidateQueries({ queryKey: keys.callouts })
      void navigate(`/callouts/${made.id}`)
    },
    onError: () => {
      id.current = newId()
    },
  })
  const refused = start.error instanceof ApiError ? start.error.body : null
  useKeys({ ' ': kit ? () => start.mutate() : undefined })
  if (!kits.data?.length)
    return (
      <Empty>
        A call-out is to a kit.{' '}
        <Link to="/kits/new">
          <u>Put one together first</u>
        </Link>
        : its drums, in a row.
      </Empty>
    )
  return (
    <Form aria-label="Begin a call-out" role="region">
      <Select
        label="Kit"
        value={kit}
        onChange={set('kit')}
        options={kits.data.map((each): [string, string] => [String(each.id), each.name])}
        error={refused?.fields['kit']}
      />
      <Select
        label="Minutes before they play"
        value={asked.minutes}
        onChange={set('minutes')}
        options={MINUTES.map((each): [string, string] => [each, `${each} minutes`])}
      />
      <Field label="Place (empty: the kit’s)" value={asked.at} onChange={set('at')} />
      <DayField label="When (empty: now)" hour value={asked.show} onChange={set('show')} />
      {refused ? <Problem>{refused.message}</Problem> : null}
      <Main onPress={() => start.mutate()} isDisabled={start.isPending}>
        Open it <Key>space</Key>
      </Main>
    </Form>
  )
}

/** Kits to be seen to in minutes: those to come, going on, and the last that were. */
export function CalloutsPage() {
  const may = mayChange(useSession().data)
  const rows = useQuery({
    queryKey: keys.callouts,
    queryFn: () => unwrap(api.GET('/api/callouts')),
    staleTime: 0,
  })
  return (
    <Page>
      <Head>
        <h1>Call-outs</h1>
        <Soft>A worn kit and minutes left: what first?</Soft>
      </Head>
      {rows.error ? <Problem>{rows.error.message}</Problem> : null}
      {may ? <Begin /> : null}
      {rows.data && !rows.data.length ? <Empty>No call-out yet.</Empty> : null}
      <List>
        {rows.data?.map((line) => (
          <li key={line.id}>
            <Link
              to={`/callouts/${line.id}${line.state === 'over' || line.state === 'reported' ? '?at=note' : ''}`}
            >
              <b>{line.name}</b>
              <span>{stateOf(line)}</span>
              <Soft>
                {[line.at, `${line.minutes} minutes`, shortDate(new Date(line.touched_at)), line.by]
                  .filter(Boolean)
                  .join(', ')}
              </Soft>
            </Link>
          </li>
        ))}
      </List>
    </Page>
  )
}

const Form = styled.section`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 14px 24px;
  align-items: end;
  padding: 16px 28px 20px;
  border-bottom: 1px solid var(--rule);
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    padding: 12px 16px 16px;
    > button,
    > p,
    > :has(input) {
      grid-column: 1 / -1;
    }
  }
`
const List = styled.ul`
  li {
    border-bottom: 1px solid var(--rule);
  }
  a {
    display: grid;
    grid-template-columns: minmax(0, 300px) minmax(0, 260px) minmax(0, 1fr);
    align-items: baseline;
    gap: 4px 18px;
    padding: 15px 28px;
  }
  a:hover {
    background: var(--lifted);
  }
  b {
    font: 600 19px var(--slab);
  }
  @media (max-width: 700px) {
    a {
      grid-template-columns: minmax(0, 1fr) auto;
      padding: 12px 16px;
    }
    a > :last-child {
      grid-column: 1 / -1;
      font-size: 14.5px;
    }
  }
`
