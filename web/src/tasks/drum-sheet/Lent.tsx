import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { shortDate } from '../../domain/dates'
import { Owed } from '../../ui/Page'

/** What this drum lent, and what it has of others. */
export function Lent({ tag }: { tag: string }) {
  const loans = useQuery({
    queryKey: [...keys.loans, tag],
    queryFn: () => unwrap(api.GET('/api/shelf/loans', { params: { query: { tag } } })),
  })
  if (!loans.data?.length) return null
  return (
    <List aria-label="Lent">
      {loans.data.map((loan) => (
        <Link key={loan.id} to="/shelf/lent">
          <Owed>
            {loan.what} {loan.from_tag === tag ? `lent to ${loan.to_words}` : `lent by ${loan.from_words}`}{' '}
            since {shortDate(new Date(loan.lent_at))}
          </Owed>
        </Link>
      ))}
    </List>
  )
}

const List = styled.section`
  display: grid;
  padding-top: 8px;
  a {
    min-height: 44px;
    display: flex;
    align-items: center;
    border-top: 1px solid var(--rule);
    font-size: 15px;
  }
`
