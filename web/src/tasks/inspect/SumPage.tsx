import { useQuery } from '@tanstack/react-query'
import { Link, useNavigate, useParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { useOutbox } from '../../api/outbox'
import { mayChange, useSession } from '../../api/session'
import { many } from '../../domain/counted'
import { Key, Main, Plain, Quiet } from '../../ui/Button'
import { Empty, Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { PlannedRows } from '../../ui/PlannedRows'
import { useKeys } from '../../ui/useKeys'
import { Waiting } from '../../ui/Waiting'
import { PlanRow } from './PlanRow'
import { ToBuy } from './ToBuy'
import { usePlanning } from './usePlanning'

/** A walk’s end: what it comes to, the work to plan with its heads promised, and what is to be bought. */
export function SumPage() {
  const { walk: id = '' } = useParams()
  const { entries } = useOutbox()
  const waiting = entries.filter(
    (entry) => entry.log === 'walk' && entry.job === id && entry.state === 'waiting',
  ).length
  const sum = useQuery({
    queryKey: [...keys.walkSum(id), waiting],
    queryFn: () => unwrap(api.GET('/api/inspect/walks/{walk_id}/sum', { params: { path: { walk_id: id } } })),
    staleTime: 0,
  })
  if (sum.error) return <Problem>{sum.error.message}</Problem>
  if (!sum.data) return <Waiting />
  return <Ended {...{ id, waiting }} sum={sum.data} />
}

function Ended({ id, sum, waiting }: { id: string; sum: Schemas['WalkSum']; waiting: number }) {
  const navigate = useNavigate()
  const may = mayChange(useSession().data)
  const { leave, plan, takeBack, finish, jobs, chosenFor, change, setLeft } = usePlanning(id, sum)
  const any = jobs + leave.size > 0
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
          {sum.to_plan.map((drum) => (
            <PlanRow
              key={drum.tag}
              walk={id}
              drum={drum}
              left={leave.has(drum.tag)}
              chosen={(work) => chosenFor(drum.tag, work)}
              mayChange={may}
              onChange={(work, changed) => change(drum.tag, work, changed)}
              onLeave={(left) => setLeft(drum.tag, left)}
            />
          ))}
          {sum.to_plan.length || sum.planned.length ? null : <Empty>Nothing to plan from this walk.</Empty>}
          <Made
            sum={sum}
            fresh={plan.data?.planned ?? []}
            onBack={may && !takeBack.isPending ? (back) => takeBack.mutate({ ...NOTHING, ...back }) : null}
          />
          {takeBack.error ? <Problem>{takeBack.error.message}</Problem> : null}
        </section>
        <ToBuy lines={sum.buy} />
      </Columns>
      {may ? (
        <Foot>
          <Plain onPress={() => void navigate('/inspect')}>Walks</Plain>
          <Main isDisabled={any ? !go : !end} onPress={() => (go ?? end)?.()}>
            {any ? `Plan ${jobs === 1 ? 'this job' : `these ${jobs} jobs`}` : 'End this walk'}{' '}
            <Key>space</Key>
          </Main>
        </Foot>
      ) : null}
    </Page>
  )
}

const NOTHING = { planned: [], left_so: [] }

/** What is planned for the drums of this walk by now, and what was left as it is; each can be taken back. */
function Made({
  sum,
  fresh,
  onBack,
}: {
  sum: Schemas['WalkSum']
  /** What the last press planned. */
  fresh: readonly string[]
  onBack: ((back: { planned?: string[]; left_so?: string[] }) => void) | null
}) {
  if (!sum.planned.length && !sum.left_so.length) return null
  const now = sum.planned.map(({ id }) => id).filter((id) => fresh.includes(id))
  return (
    <Planned aria-label="Planned" role="status">
      {sum.planned.length ? (
        <>
          <h2>{many(sum.planned.length, 'job')} planned, on Today by its day</h2>
          <PlannedRows
            rows={sum.planned}
            onDrop={onBack ? ({ id }) => onBack({ planned: [id] }) : null}
            dropWords="Take it back"
          />
        </>
      ) : null}
      {sum.left_so.map((tag) => (
        <p key={tag}>
          <Num>{tag}</Num> left as it is
          {onBack ? <Quiet onPress={() => onBack({ left_so: [tag] })}>Take it back</Quiet> : null}
        </p>
      ))}
      {onBack && now.length > 1 ? (
        <Plain onPress={() => onBack({ planned: now })}>Take these {now.length} back</Plain>
      ) : null}
    </Planned>
  )
}

const Planned = styled.section`
  padding: 16px 28px;
  display: grid;
  gap: 6px;
  > p {
    display: flex;
    align-items: center;
    gap: 10px;
    border-top: 1px solid var(--rule);
  }
  > button {
    justify-self: start;
  }
  @media (max-width: 700px) {
    padding: 14px 16px;
  }
`
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
  bottom: var(--above-rail);
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
    padding: 8px 16px;
    > button:last-child {
      min-width: 0;
      flex: 1;
    }
  }
`
