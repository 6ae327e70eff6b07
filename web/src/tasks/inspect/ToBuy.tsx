import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Num, Soft } from '../../ui/Page'

/** What the shelf does not have for all of it, each line with the drums it is for. */
export function ToBuy({ lines }: { lines: Schemas['BuyLine'][] }) {
  return (
    <section aria-label="To buy">
      <h2>To buy</h2>
      {lines.length ? (
        <List>
          {lines.map((line) => (
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
        </List>
      ) : (
        <Soft>The shelf has everything.</Soft>
      )}
    </section>
  )
}

const List = styled.ul`
  li {
    display: flex;
    gap: 14px;
    padding: 8px 0;
    border-top: 1px solid var(--rule);
    color: var(--red);
  }
  li b {
    font: 650 22px/1.1 var(--slab);
    min-width: 24px;
  }
  li span span {
    display: block;
    font-size: 13.5px;
  }
`
