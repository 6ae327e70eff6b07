import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { shortDate } from '../../domain/dates'
import { Plain, Quiet } from '../../ui/Button'
import { Empty, Head, Page, Problem, Soft } from '../../ui/Page'
import { Arrived, JustArrived } from './Arrived'
import { useStockChanged, type Line } from './useShelf'

type Buy = Schemas['BuyOut']

/** The list as one would send it: plain lines of text. */
export const asText = (list: Buy[]): string => list.map((buy) => `${buy.count} × ${buy.what}`).join('\n')

/** What is to be bought, line by line with the reason for each piece; and what goes back where it was bought. */
export function BuyingPage() {
  const queries = useQueryClient()
  const changed = useStockChanged()
  const may = mayChange(useSession().data)
  const [copied, setCopied] = useState(false)
  const [arrived, setArrived] = useState<Buy | null>(null)
  const [came, setCame] = useState<Line | null>(null)
  const buying = useQuery({
    queryKey: keys.buying,
    queryFn: () => unwrap(api.GET('/api/shelf/buying')),
    staleTime: 0,
  })
  const back = useQuery({
    queryKey: keys.goingBack,
    queryFn: () => unwrap(api.GET('/api/shelf/back')),
    staleTime: 0,
  })
  const end = useMutation({
    mutationFn: ({ key, ended }: { key: string; ended: 'sent' | 'kept' | 'thrown' }) =>
      unwrap(api.POST('/api/shelf/back/{key}', { params: { path: { key } }, body: { ended } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: keys.goingBack })
      changed()
    },
  })
  const list = buying.data ?? []
  const copy = () => void navigator.clipboard.writeText(asText(list)).then(() => setCopied(true))
  return (
    <Page>
      <Head>
        <h1>{list.length ? 'To buy' : 'Nothing to buy'}</h1>
        <Soft>for planned work, and to keep what you want kept; the soonest wanted first</Soft>
        <span data-end>
          {list.length ? <Quiet onPress={copy}>{copied ? 'Copied' : 'Copy as text'}</Quiet> : null}
          <Quiet onPress={() => window.print()}>Print</Quiet>{' '}
          <Link to="/shelf">
            <u>Shelf</u>
          </Link>
        </span>
      </Head>
      {buying.error ? <Problem>{buying.error.message}</Problem> : null}
      {buying.data && !list.length ? (
        <Empty>Every planned job has what it needs, and nothing is below what you want kept.</Empty>
      ) : null}
      {came ? <JustArrived key={came.movements[0]?.at} line={came} onBack={() => setCame(null)} /> : null}
      <List aria-label="To buy">
        {list.map((buy) => (
          <li key={buy.what}>
            <b>{buy.count}</b>
            <span>
              <strong>{buy.line ? <Link to={`/shelf/${buy.line}`}>{buy.what}</Link> : buy.what}</strong>
              <Soft>{buy.reasons.join('; ')}</Soft>
            </span>
            {may && buy.line ? (
              <Plain onPress={() => setArrived(buy)}>Arrived</Plain>
            ) : may ? (
              <Link to={`/shelf/new?name=${encodeURIComponent(buy.what.replace(/,.*/, ''))}`}>
                <u>begin its line</u>
              </Link>
            ) : null}
          </li>
        ))}
      </List>
      {back.data?.length ? (
        <Back aria-label="To go back">
          <h2>To go back where it was bought</h2>
          <ul>
            {back.data.map((each) => (
              <li key={each.id}>
                <span>
                  <b>
                    {each.count} × {each.called}
                  </b>
                  <Soft as="p">
                    {each.what}
                    {each.batch ? `, batch ${each.batch}` : ''}
                    {each.words ? `, ${each.words}` : ''}; {each.by}, {shortDate(new Date(each.at))}
                  </Soft>
                </span>
                {may ? (
                  <span>
                    <Plain onPress={() => end.mutate({ key: each.id, ended: 'sent' })}>Sent</Plain>
                    <Quiet onPress={() => end.mutate({ key: each.id, ended: 'kept' })}>Keep after all</Quiet>
                    <Quiet onPress={() => end.mutate({ key: each.id, ended: 'thrown' })}>Thrown away</Quiet>
                  </span>
                ) : null}
              </li>
            ))}
          </ul>
        </Back>
      ) : null}
      {arrived?.line ? <Arrived buy={arrived} onDone={setCame} onClose={() => setArrived(null)} /> : null}
    </Page>
  )
}

const List = styled.ul`
  li {
    display: grid;
    grid-template-columns: 52px minmax(0, 1fr) auto;
    align-items: center;
    gap: 14px;
    min-height: 64px;
    padding: 8px 28px;
    border-bottom: 1px solid var(--rule);
  }
  li > b {
    font: 650 26px/1 var(--slab);
    color: var(--red);
  }
  strong {
    text-wrap: balance;
    display: block;
    font: 600 18px var(--slab);
  }
  span {
    font-size: 15px;
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: 36px minmax(0, 1fr) auto;
      padding: 8px 16px;
    }
  }
`
const Back = styled.section`
  padding: 20px 28px 28px;
  h2 {
    font-size: 19px;
    padding-bottom: 6px;
    border-bottom: 1px solid var(--ink);
  }
  li {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    align-items: center;
    gap: 8px;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
    font-size: 15px;
  }
  @media (max-width: 700px) {
    padding: 16px;
  }
`
