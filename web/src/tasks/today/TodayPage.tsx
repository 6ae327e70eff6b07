import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { useSession } from '../../api/session'
import { longDate, span } from '../../domain/dates'
import { Head, Page, Problem, Soft } from '../../ui/Page'
import { NothingOwed } from './NothingOwed'
import { OwedLedger } from './OwedLedger'
import { RestingNow } from './RestingNow'
import { SideColumn } from './SideColumn'
import { useMore } from './useMore'

const NUMBERS = [
  'Nothing',
  'One',
  'Two',
  'Three',
  'Four',
  'Five',
  'Six',
  'Seven',
  'Eight',
  'Nine',
  'Ten',
  'Eleven',
  'Twelve',
]
const counted = (count: number): string => `${NUMBERS[count] ?? count} owed`

/** What is owed now, most urgent first; beside it what is in hand, resting and coming. */
export function TodayPage() {
  const session = useSession()
  const today = useQuery({
    queryKey: keys.today,
    queryFn: () => unwrap(api.GET('/api/today')),
    refetchInterval: 30_000,
  })
  const items = today.data?.items ?? []
  const owed = useMore(today.data)
  return (
    <Page>
      <Head>
        <h1>{today.data ? counted(today.data.owed_count) : 'Today'}</h1>
        <Soft>
          {longDate(new Date())}, {session.data?.workshop?.bench_name}
        </Soft>
        {today.data?.work_minutes ? (
          <Soft data-end>about {span(today.data.work_minutes)} of work</Soft>
        ) : null}
      </Head>
      {today.error ? <Problem>{today.error.message}</Problem> : null}
      {today.data?.copies ? (
        <Copies role="status">{today.data.copies} Whoever runs this makes one with tools/backup.</Copies>
      ) : null}
      <RestingNow items={items.filter((item) => item.kind === 'resting')} />
      <Columns>
        <section aria-label="Owed">
          {today.data && owed.items.length === 0 ? (
            <NothingOwed />
          ) : (
            <OwedLedger items={owed.items} left={owed.left} onMore={owed.more} />
          )}
        </section>
        <SideColumn items={items.filter((item) => !item.owed_now)} />
      </Columns>
    </Page>
  )
}

const Copies = styled.p`
  padding: 8px 28px;
  background: var(--faint);
  border-bottom: 1px solid var(--rule);
  font-size: 14.5px;
  font-weight: 550;
`
const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 348px;
  > section:last-child {
    border-left: 1px solid var(--rule);
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    > section:last-child {
      border-left: 0;
      border-top: 1px solid var(--rule);
    }
  }
`
