import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Soft } from '../../ui/Page'

/** What is known of each head: what a turn does, and how it settles. */
export function Sides({ sound }: { sound: Schemas['SoundOut'] }) {
  return (
    <List>
      {sound.sides.map((side) => (
        <li key={side.side}>
          <h2>{side.side === 'batter' ? 'Batter' : 'Resonant'}</h2>
          <Soft>
            {side.head || 'no head on record'}
            {side.assumed && side.film ? '; a usual film is reckoned with' : ''}
          </Soft>
          {side.answer ? <p>{side.answer}</p> : null}
          {side.settling ? <p>{side.settling}</p> : null}
        </li>
      ))}
    </List>
  )
}

const List = styled.ul`
  font-size: 14.5px;
  line-height: 1.4;
  li {
    padding: 9px 0;
    border-top: 1px solid var(--rule);
  }
  h2 {
    font-size: 17px;
  }
`
