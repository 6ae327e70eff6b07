import { Link } from 'react-router'
import styled from 'styled-components'
import { span } from '../../domain/dates'
import { actionOf } from './links'
import type { OwedItem } from './owed'

/** Where there is no column beside the ledger, what rests stands above it in one line. */
export function RestingNow({ items }: { items: OwedItem[] }) {
  if (!items.length) return null
  return (
    <Line aria-label="Resting now">
      <b>Resting</b>
      {items.map((item) => (
        <Link key={item.job_id} to={actionOf(item)}>
          {item.name}, {span(item.minutes_left ?? 0)} left
        </Link>
      ))}
    </Line>
  )
}

const Line = styled.nav`
  display: none;
  @media (max-width: 1000px) {
    display: flex;
    flex-wrap: wrap;
    gap: 0 20px;
    align-items: center;
    padding: 0 28px;
    border-bottom: 1px solid var(--rule);
    b {
      font: 600 16px var(--slab);
    }
    a {
      display: flex;
      align-items: center;
      min-height: 48px;
      text-decoration: underline;
    }
  }
  @media (max-width: 700px) {
    padding: 0 16px;
  }
`
