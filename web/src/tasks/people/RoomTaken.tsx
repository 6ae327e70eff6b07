import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { shortDate } from '../../domain/dates'
import { Soft } from '../../ui/Page'
import { room } from './room'

/** How much room the record book takes, and when it was last copied. */
export function RoomTaken() {
  const found = useQuery({ queryKey: keys.room, queryFn: () => unwrap(api.GET('/api/machine/room')) })
  if (!found.data) return null
  const { bytes, parts, last_copy } = found.data
  return (
    <section aria-label="Room">
      <h2>Room on disk</h2>
      <List>
        {parts
          .filter((each) => each.bytes > 0)
          .map((each) => (
            <li key={each.words}>
              <Soft>{each.words}</Soft> {room(each.bytes)}
            </li>
          ))}
        <li>
          <b>all workshops together</b> <b>{room(bytes)}</b>
        </li>
        <li>
          <Soft>last backup</Soft> {last_copy ? shortDate(new Date(last_copy)) : 'none yet'}
        </li>
      </List>
    </section>
  )
}

const List = styled.ul`
  padding: 6px 0 18px;
  li {
    display: flex;
    justify-content: space-between;
    gap: 14px;
    padding: 7px 0;
    border-bottom: 1px solid var(--rule);
    font-variant-numeric: tabular-nums;
  }
`
