import { useMutation, useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { dayOf, shortDate } from '../../domain/dates'
import { Plain, Quiet } from '../../ui/Button'
import { Count } from '../../ui/Count'
import { Empty, Head, Page, Problem, Soft } from '../../ui/Page'
import { LendForm } from './LendForm'
import { useStockChanged } from './useShelf'

type Loan = Schemas['LoanOut']

const since = (loan: Loan): string =>
  loan.days === 0 ? 'today' : loan.days === 1 ? '1 day' : `${loan.days} days`

/** Parts lent from drum to drum, or off the shelf, until they are back. */
export function LentPage() {
  const may = mayChange(useSession().data)
  const changed = useStockChanged()
  const loans = useQuery({
    queryKey: keys.loans,
    queryFn: () => unwrap(api.GET('/api/shelf/loans')),
    staleTime: 0,
  })
  const end = useMutation({
    mutationFn: ({ key, ended }: { key: string; ended: 'back' | 'lost' | 'kept' }) =>
      unwrap(api.POST('/api/shelf/loans/{key}/end', { params: { path: { key } }, body: { ended } })),
    onSettled: () => {
      void loans.refetch()
      changed()
    },
  })
  return (
    <Page>
      <Head>
        <h1>Lent</h1>
        <Soft>what is out until it is back</Soft>
        <Link to="/shelf" data-end>
          <u>Shelf</u>
        </Link>
      </Head>
      {(loans.error ?? end.error) ? <Problem>{(loans.error ?? end.error)?.message}</Problem> : null}
      <List aria-label="Lent and not back">
        {loans.data?.map((loan) => (
          <li key={loan.id}>
            <span>
              <Count count={Math.max(1, loan.days)} owed />
              <em>{since(loan)}</em>
            </span>
            <span>
              <b>
                {loan.number > 1 ? `${loan.number} × ` : ''}
                {loan.what}
              </b>
              <p>
                from{' '}
                {loan.from_tag ? (
                  <Link to={`/drums/${loan.from_tag}`}>
                    <u>{loan.from_words}</u>
                  </Link>
                ) : (
                  loan.from_words
                )}{' '}
                to{' '}
                {loan.to_tag ? (
                  <Link to={`/drums/${loan.to_tag}`}>
                    <u>{loan.to_words}</u>
                  </Link>
                ) : (
                  loan.to_words
                )}
                {loan.due_on ? `, back by ${shortDate(dayOf(loan.due_on))}${loan.late ? ': late' : ''}` : ''}
                <Soft>, {loan.by}</Soft>
              </p>
            </span>
            {may ? (
              <span data-ends>
                <Plain onPress={() => end.mutate({ key: loan.id, ended: 'back' })}>Back</Plain>
                <Quiet onPress={() => end.mutate({ key: loan.id, ended: 'lost' })}>Lost</Quiet>
                <Quiet onPress={() => end.mutate({ key: loan.id, ended: 'kept' })}>Stays there</Quiet>
              </span>
            ) : null}
          </li>
        ))}
      </List>
      {loans.data?.length === 0 ? <Empty>Everything is where it belongs.</Empty> : null}
      {may ? <LendForm onLent={() => void loans.refetch()} /> : null}
    </Page>
  )
}

const List = styled.ul`
  li {
    display: grid;
    grid-template-columns: 92px minmax(0, 1fr) auto;
    align-items: center;
    gap: 14px;
    min-height: 66px;
    padding: 8px 28px;
    border-bottom: 1px solid var(--rule);
  }
  em {
    font-style: normal;
    font-size: 12.5px;
    color: var(--red);
  }
  b {
    font: 600 18px var(--slab);
  }
  p {
    font-size: 15px;
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: 76px minmax(0, 1fr);
      padding: 8px 16px;
    }
    [data-ends] {
      grid-column: 1 / -1;
    }
  }
`
