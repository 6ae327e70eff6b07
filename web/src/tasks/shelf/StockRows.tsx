import { Link } from 'react-router'
import styled from 'styled-components'
import { Num, Owed, Soft } from '../../ui/Page'
import { StockStrokes } from '../../ui/StockStrokes'
import type { Row } from './useShelf'

const counted = (row: Row): string =>
  `${row.there || 'none'} there${row.promised ? `, ${row.promised} promised` : ''}${row.minimum ? `, to keep ${row.minimum}` : ''}`

const NAMED: Partial<Record<Row['sort'], string>> = { wires: 'wires, ', rod: 'rod ' }

/** The lines of the shelf: where, what, how many in strokes, what is owed. */
export function StockRows({ rows }: { rows: Row[] }) {
  return (
    <List>
      {rows.map((row) => (
        <li key={row.id}>
          <Link to={`/shelf/${row.id}`}>
            <Num>{row.place}</Num>
            <span>
              <b>
                {row.used ? 'used ' : ''}
                {NAMED[row.sort] ?? ''}
                {row.what}
              </b>
              <Soft>{row.size}</Soft>
            </span>
            <span data-count>
              <StockStrokes
                free={row.free}
                promised={Math.min(row.promised, row.there)}
                short={Boolean(row.owed)}
              />
              <small data-none={row.there === 0 || undefined} data-short={Boolean(row.owed) || undefined}>
                {counted(row)}
              </small>
            </span>
            <span>
              {row.owed ? <Owed>{row.owed}</Owed> : null}
              {row.elsewhere.length || row.said || row.used ? (
                <Soft>
                  {[row.used ? 'for an emergency only' : '', ...row.elsewhere, row.said]
                    .filter(Boolean)
                    .join('; ')}
                </Soft>
              ) : null}
            </span>
          </Link>
        </li>
      ))}
    </List>
  )
}

const List = styled.ul`
  li {
    border-bottom: 1px solid var(--rule);
  }
  a {
    display: grid;
    grid-template-columns: 64px minmax(0, 1.05fr) 172px minmax(0, 1.3fr);
    align-items: center;
    gap: 0 14px;
    min-height: 58px;
    padding: 6px 28px;
    outline-offset: -3px;
  }
  a:hover {
    background: var(--lifted);
  }
  a > span {
    display: flex;
    flex-direction: column;
    gap: 1px;
    min-width: 0;
    font-size: 14.5px;
    line-height: 1.3;
  }
  b {
    font: 600 18px/1.2 var(--slab);
  }
  small {
    font-size: 12.5px;
    color: var(--soft);
  }
  small[data-none] {
    font-size: 14.5px;
  }
  small[data-short][data-none] {
    color: var(--red);
    font-weight: 600;
  }
  @media (max-width: 700px) {
    a {
      grid-template-columns: minmax(0, 1fr) auto;
      padding: 9px 16px;
      gap: 3px 12px;
    }
    a > :first-child {
      order: 3;
      justify-self: end;
      color: var(--soft);
    }
    [data-count] {
      justify-self: end;
      align-items: flex-end;
      order: 2;
    }
    a > span:last-child {
      order: 2;
      grid-column: 1;
    }
    a > span:last-child:empty {
      display: none;
    }
  }
`
