import { useMutation, useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { startWalk, type WalkAsked } from '../../api/walks'
import { shortDate } from '../../domain/dates'
import { newId } from '../../domain/ids'
import { Key, Main, Plain } from '../../ui/Button'
import { Empty, Head, Page, Problem, Soft } from '../../ui/Page'
import { Select } from '../../ui/Select'
import { useKeys } from '../../ui/useKeys'
import { FindDrum } from './FindDrum'

const NOTHING = { kind: '', place: '', kit: '' }

function useStart() {
  const navigate = useNavigate()
  const id = useRef(newId())
  return useMutation({
    mutationFn: (asked: Partial<WalkAsked>) => startWalk(asked, id.current),
    onSuccess: (walk) => void navigate(`/inspect/${walk.id}`),
    onError: () => {
      id.current = newId()
    },
  })
}

/** Look at one drum, or walk along a shelf; go on with a walk that was left. */
export function WalksPage() {
  const session = useSession()
  const may = mayChange(session.data)
  const walks = useQuery({ queryKey: keys.walks, queryFn: () => unwrap(api.GET('/api/inspect/walks')) })
  const choices = useQuery({
    queryKey: keys.choices,
    queryFn: () => unwrap(api.GET('/api/register/choices')),
  })
  const [narrowed, setNarrowed] = useState(NOTHING)
  const [out, setOut] = useState(false)
  const start = useStart()
  const set = (name: keyof typeof NOTHING) => (value: string) => setNarrowed({ ...narrowed, [name]: value })
  const all = (words: string, names: string[]): [string, string][] => [
    ['', words],
    ...names.map((name): [string, string] => [name, name]),
  ]
  const chosen = Object.values(narrowed).some(Boolean)
  const refused = start.error instanceof ApiError ? start.error.body.message : ''
  const walk = () => start.mutate({ ...narrowed, going_out: out })
  useKeys({ ' ': chosen && may ? walk : undefined })
  const open = walks.data?.filter((each) => each.state === 'open') ?? []
  const over = walks.data?.filter((each) => each.state === 'done') ?? []
  return (
    <Page>
      <Head>
        <h1>Inspect</h1>
        <Soft>Look, tick, and know what each drum needs.</Soft>
        <Link to="/inspect/lives" data-end>
          <u>How long heads last</u>
        </Link>
        <Link to="/inspect/rules">
          <u>The rules</u>
        </Link>
      </Head>
      {may ? (
        <Begin aria-label="Begin" role="region">
          <div>
            <h2>One drum</h2>
            <FindDrum
              problem={chosen ? '' : refused}
              onTag={(tag) => start.mutate({ tags: [tag.trim()], going_out: out })}
            />
          </div>
          <div>
            <h2>A shelf, a kind or a kit</h2>
            <Three>
              <Select
                label="Place"
                value={narrowed.place}
                onChange={set('place')}
                options={all('every place', choices.data?.places ?? [])}
              />
              <Select
                label="Kind"
                value={narrowed.kind}
                onChange={set('kind')}
                options={[['', 'every kind'], ...Object.entries(choices.data?.kinds ?? {})]}
              />
              <Select
                label="Kit"
                value={narrowed.kit}
                onChange={set('kit')}
                options={all('every kit', choices.data?.kits ?? [])}
              />
            </Three>
            {chosen && refused ? <Problem>{refused}</Problem> : null}
            <p>
              <Main isDisabled={!chosen || start.isPending} onPress={walk}>
                Walk along them <Key>space</Key>
              </Main>
              <Plain aria-pressed={out} onPress={() => setOut(!out)}>
                {out ? 'They go out ✓' : 'They go out'}
              </Plain>
            </p>
          </div>
        </Begin>
      ) : null}
      {walks.error ? <Problem>{walks.error.message}</Problem> : null}
      {walks.data && !walks.data.length ? (
        <Empty>
          No walk yet. Open a drum by its tag, or walk along a whole shelf: twenty seconds a drum.
        </Empty>
      ) : null}
      <Lines title="Not over yet" walks={open} />
      <Lines title="Done" walks={over} />
    </Page>
  )
}

function Lines({ title, walks }: { title: string; walks: Schemas['WalkLine'][] }) {
  if (!walks.length) return null
  return (
    <List aria-label={title} role="region">
      <h2>{title}</h2>
      {walks.map((walk) => (
        <Link
          key={walk.id}
          to={walk.looked === walk.drums ? `/inspect/${walk.id}/sum` : `/inspect/${walk.id}`}
        >
          <b>{walk.name}</b>
          <span>
            {walk.looked} of {walk.drums} looked at
          </span>
          <em data-owed={walk.owed > 0 || undefined}>{walk.owed ? `${walk.owed} to decide` : ''}</em>
          <Soft>
            {walk.started_by}, {shortDate(new Date(walk.touched_at))}
          </Soft>
        </Link>
      ))}
    </List>
  )
}

const Begin = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.5fr);
  border-bottom: 1px solid var(--rule);
  > div {
    display: grid;
    gap: 12px;
    align-content: start;
    padding: 16px 28px 20px;
  }
  > div + div {
    border-left: 1px solid var(--rule);
  }
  h2 {
    font-size: 19px;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
  }
  p > button {
    min-height: 56px;
  }
  [aria-pressed='true'] {
    background: var(--faint);
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    > div {
      padding: 14px 16px;
    }
    > div + div {
      border-left: 0;
      border-top: 1px solid var(--rule);
    }
  }
`
const Three = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 12px 18px;
`
const List = styled.section`
  padding: 16px 28px 4px;
  h2 {
    font-size: 18px;
    padding-bottom: 4px;
  }
  a {
    display: grid;
    grid-template-columns: minmax(140px, 1.2fr) 1fr 1fr 1fr;
    gap: 2px 16px;
    align-items: center;
    min-height: 52px;
    border-top: 1px solid var(--rule);
  }
  a:hover {
    background: var(--lifted);
  }
  b {
    font: 600 18px var(--slab);
  }
  em {
    font-style: normal;
  }
  em[data-owed] {
    color: var(--red);
    font-weight: 650;
  }
  @media (max-width: 700px) {
    padding: 14px 16px 4px;
    a {
      grid-template-columns: minmax(0, 1fr) auto;
      padding: 6px 0;
    }
    a > span:last-child {
      text-align: right;
    }
  }
`
