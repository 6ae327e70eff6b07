import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { isOwner, mayChange, useSession } from '../../api/session'
import { Empty } from '../../ui/Page'

/** Nothing is owed; or the book is new, and this is what comes first. */
export function NothingOwed() {
  const session = useSession().data
  const drums = useQuery({
    queryKey: keys.drums({ first: true }),
    queryFn: () => unwrap(api.GET('/api/register/drums')),
  })
  if (drums.data?.total !== 0 || !mayChange(session))
    return (
      <Empty>
        Nothing is owed. The last red stroke is gone; go on with what is in hand, or walk the shelves.
      </Empty>
    )
  return (
    <First>
      <p>This book is new. Today fills by itself once it knows your drums.</p>
      <ol>
        <li>
          <Link to="/drums/new">Add the first drum</Link>
          <span>a tag, a size, its rods</span>
        </li>
        <li>
          <Link to="/drums/bring">Bring a list of drums in</Link>
          <span>CSV or a workbook, with what is on them if it says so</span>
        </li>
        <li>
          <b>Say what is on it</b>
          <span>on its sheet: heads and wires, and since when; then Today says when they are due</span>
        </li>
        <li>
          <Link to="/shelf/sheet">Bring the shelf in</Link>
          <span>heads, wires and parts from a sheet, or line by line</span>
        </li>
        {isOwner(session) ? (
          <li>
            <Link to="/people">Invite who works with you</Link>
            <span>by a link you send</span>
          </li>
        ) : null}
        <li>
          <Link to="/ways">Look through the workshop’s ways</Link>
          <span>what the trade disagrees about, as you do it</span>
        </li>
      </ol>
    </First>
  )
}

const First = styled.div`
  padding: 22px 28px;
  max-width: 720px;
  p {
    font: 500 20px/1.4 var(--slab);
    padding-bottom: 12px;
  }
  li {
    display: grid;
    gap: 1px;
    padding: 12px 0;
    border-top: 1px solid var(--rule);
    list-style: none;
  }
  a,
  b {
    font: 600 18px var(--slab);
  }
  a {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  span {
    color: var(--soft);
  }
  @media (max-width: 700px) {
    padding: 16px;
  }
`
