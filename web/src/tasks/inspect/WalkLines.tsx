import { Link } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../domain/dates'
import { Soft } from '../../ui/Page'

/** Walks, each with how far it is and what is to decide. */
export function WalkLines({ title, walks }: { title: string; walks: Schemas['WalkLine'][] }) {
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
