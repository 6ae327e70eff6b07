import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { useOutbox } from '../../api/outbox'
import { mayChange, useSession } from '../../api/session'
import { newId } from '../../domain/ids'
import { Key, Main, Plain } from '../../ui/Button'
import { Empty, Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { PlanRow } from './PlanRow'
import { dayIn, type Chosen } from './planning'

type Sum = Schemas['WalkSum']

const idOf = (tag: string, work: Schemas['ProposedOut']): string => `${tag}/${work.work}/${work.part}`

/** What is proposed until somebody chooses otherwise: all of it, the head that is free, by its usual day. */
function proposed(sum: Sum, idFor: (key: string) => string): Record<string, Chosen> {
  const free = new Map<number, number>()
  const made: Record<string, Chosen> = {}
  for (const drum of sum.to_plan)
    for (const work of drum.works) {
      const heads: Chosen['heads'] = {}
      for (const side of work.new_heads) {
        const fits = drum.heads[side] ?? []
        const left = (item: Schemas['HeadChoice']) => free.get(item.stock_item) ?? item.free
        const head = fits.find((each) => left(each) > 0)
        if (head) free.set(head.stock_item, left(head) - 1)
        heads[side] = head?.stock_item ?? null
      }
      const key = idOf(drum.tag, work)
      made[key] = { id: idFor(key), on: true, due: dayIn(work.due_days), heads }
    }
  return made
}

/** A walk's end: what it comes to, the work to plan with its heads promised, and what is to be bought. */
export function SumPage() {
  const { walk: id = '' } = useParams()
  const { entries } = useOutbox()
  const waiting = entries.filter(
    (entry) => entry.log === 'walk' && entry.job === id && entry.state === 'waiting',
  )
  const sum = useQuery({
    queryKey: [...keys.walkSum(id), waiting.length],
    queryFn: () => unwrap(api.GET('/api/inspect/walks/{walk_id}/sum', { params: { path: { walk_id: id } } })),
    staleTime: 0,
  })
  if (sum.error) return <Problem>{sum.error.message}</Problem>
  if (!sum.data) return <Page />
  return <Planned id={id} sum={sum.data} waiting={waiting.length} />
}

function Planned({ id, sum, waiting }: { id: string; sum: Sum; waiting: number }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const may = mayChange(useSession().data)
  // What was chosen stays chosen while the sum is asked for anew, and a job asked for twice is planned once.
  const [ids] = useState(() => new Map<string, string>())
  const [otherwise, setOtherwise] = useState<Record<string, Partial<Chosen>>>({})
  const chosen = useMemo(() => {
    const idFor = (key: string) => {
      const known = ids.get(key) ?? newId()
      ids.set(key, known)
      return known
    }
    const usual = Object.entries(proposed(sum, idFor))
    return Object.fromEntries(usual.map(([key, each]) => [key, { ...each, ...otherwise[key] }]))
  }, [sum, ids, otherwise])
  const [leave, setLeave] = useState<ReadonlySet<string>>(new Set())
  const on = sum.to_plan.flatMap((drum) =>
    leave.has(drum.tag)
      ? []
      : drum.works.flatMap((work) => {
          const each = chosen[idOf(drum.tag, work)]
          return each?.on ? [{ drum, work, each }] : []
        }),
  )
  const plan = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/inspect/walks/{walk_id}/plan', {
          params: { path: { walk_id: id } },
          body: {
            works: on.map(({ drum, work, each }) => ({
              id: each.id,
              tag: drum.tag,
              work: work.work,
              part: work.part,
              due_on: each.due,
              heads: work.new_heads.map((side) => ({ side, stock_item: each.heads[side] ?? null })),
            })),
            leave: [...leave],
          },
        }),
      ),
    onSuccess: () => {
      for (const key of [keys.today, keys.walks, keys.planned])
        void queries.invalidateQueries({ queryKey: key })
    },
    onSettled: () => void queries.invalidateQueries({ queryKey: keys.walkSum(id) }),
  })
  const finish = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/inspect/walks/{walk_id}/done', { params: { path: { walk_id: id } } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: keys.walks })
      void navigate('/')
    },
  })
  const any = on.length + leave.size > 0
  const go = may && any && !plan.isPending && !waiting ? () => plan.mutate() : undefined
  const end = may && !any ? () => finish.mutate() : undefined
  useKeys({ ' ': go ?? end, PageDown: go ?? end })
  return (
    <Page>
      <Head>
        <h1>{sum.words}</h1>
        <Soft data-end>
          {sum.left.length ? (
            <Link to={`/inspect/${id}?at=${encodeURIComponent(sum.left[0] ?? '')}`}>
              <u>{sum.left.length} not looked at yet</u>
            </Link>
          ) : (
            'the whole walk'
          )}
        </Soft>
      </Head>
      {waiting ? (
        <Problem>
          {waiting} {waiting === 1 ? 'entry waits' : 'entries wait'} on this device; what they come to is not
          in this sum yet.
        </Problem>
      ) : null}
      {plan.data?.refused.map((each) => (
        <Problem key={String(each['id'])}>
          {String(each['tag'])}: {String(each['message'])}
        </Problem>
      ))}
      {plan.error ? <Problem>{plan.error.message}</Problem> : null}
      <Columns>
        <section aria-label="To plan">
          {sum.to_plan.length ? (
            sum.to_plan.map((drum) => (
              <PlanRow
                key={drum.tag}
                walk={id}
                drum={drum}
                left={leave.has(drum.tag)}
                chosen={(work) => chosen[idOf(drum.tag, work)]}
                mayChange={may}
                onChange={(work, change) => {
                  const key = idOf(drum.tag, work)
                  setOtherwise((now) => ({ ...now, [key]: { ...now[key], ...change } }))
                }}
                onLeave={(left) => {
                  const next = new Set(leave)
                  if (left) next.add(drum.tag)
                  else next.delete(drum.tag)
                  setLeave(next)
                }}
              />
            ))
          ) : (
            <Empty>
              {plan.data ? 'Planned. It is on Today, each by its day.' : 'Nothing to plan from this walk.'}
            </Empty>
          )}
        </section>
        <section aria-label="To buy">
          <h2>To buy</h2>
          {sum.buy.length ? (
            <ul>
              {sum.buy.map((line) => (
                <li key={line.what}>
                  <b>{line.count}</b>
                  <span>
                    {line.what}
                    <Soft>
                      for <Num>{line.drums.join(', ')}</Num>
                    </Soft>
                  </span>
                </li>
              ))}
            </ul>
          ) : (
            <Soft>The shelf has everything.</Soft>
          )}
        </section>
      </Columns>
      {may ? (
        <Foot>
          <Plain onPress={() => void navigate('/inspect')}>Walks</Plain>
          <Main isDisabled={any ? !go : !end} onPress={() => (go ?? end)?.()}>
            {any ? `Plan ${on.length === 1 ? 'this job' : `these ${on.length} jobs`}` : 'End this walk'}{' '}
            <Key>space</Key>
          </Main>
        </Foot>
      ) : null}
    </Page>
  )
}

const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  > section + section {
    border-left: 1px solid var(--rule);
    padding: 16px 22px;
  }
  h2 {
    font-size: 18px;
    padding-bottom: 6px;
  }
  > section + section li {
    display: flex;
    gap: 14px;
    padding: 8px 0;
    border-top: 1px solid var(--rule);
    color: var(--red);
  }
  > section + section li b {
    font: 650 22px/1.1 var(--slab);
    min-width: 24px;
  }
  > section + section li span span {
    display: block;
    font-size: 13.5px;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    > section + section {
      border-left: 0;
      border-top: 1px solid var(--rule);
      padding: 14px 16px;
    }
  }
`
const Foot = styled.footer`
  position: sticky;
  bottom: 0;
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 12px 28px;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  > button:last-child {
    min-width: 300px;
  }
  @media (max-width: 700px) {
    bottom: 57px;
    padding: 8px 16px;
    > button:last-child {
      min-width: 0;
      flex: 1;
    }
  }
`
