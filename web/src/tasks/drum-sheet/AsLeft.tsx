import styled from 'styled-components'
import type { Schemas } from '../../api/client'

/** How the last job left it, as far as it must be known again: muffling, where the hoop's seam sits, the range of a rope. */
export function AsLeft({ kept }: { kept: Schemas['LeftSo'][] }) {
  if (!kept.length) return null
  return (
    <List aria-label="As it was left">
      <h2>As it was left</h2>
      <dl>
        {kept.map(({ name, words }) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </List>
  )
}

const List = styled.section`
  padding-top: 14px;
  h2 {
    font-size: 17px;
    margin-bottom: 4px;
  }
  dl > div {
    display: grid;
    grid-template-columns: 132px minmax(0, 1fr);
    gap: 10px;
    padding: 5px 0;
    border-top: 1px solid var(--rule);
    font-size: 14.5px;
  }
  dt {
    color: var(--soft);
  }
`
