import { Link } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Soft } from '../../ui/Page'

const clock = (at: string): string =>
  new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })

/** One change: when, who, which, and each thing as it was and as it is. */
export function ChangeRow({ change }: { change: Schemas['TrailEntry'] }) {
  const changed = change.did === 'changed'
  return (
    <Row>
      <time dateTime={change.at}>{clock(change.at)}</time>
      <div>
        <p>
          <b>
            {change.tag ? (
              <Link to={`/drums/${encodeURIComponent(change.tag)}`}>{change.named}</Link>
            ) : (
              change.named
            )}
          </b>{' '}
          <Soft>
            {change.what}, {change.did}
          </Soft>
        </p>
        {change.lines.length ? (
          <Lines>
            {change.lines.map((each) => (
              <li key={each.field}>
                <Soft>{each.field}</Soft>{' '}
                {changed ? (
                  <>
                    {each.was || 'nothing'} → <b>{each.now || 'nothing'}</b>
                  </>
                ) : (
                  each.now || each.was
                )}
              </li>
            ))}
          </Lines>
        ) : null}
      </div>
      <Soft>{change.by || 'the machine'}</Soft>
    </Row>
  )
}

const Row = styled.li`
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr) auto;
  gap: 4px 16px;
  padding: 9px 0;
  border-bottom: 1px solid var(--rule);
  font-size: 15.5px;
  time {
    font: 400 14px var(--mono);
    color: var(--soft);
    padding-top: 3px;
  }
  p b {
    font: 600 16px var(--slab);
  }
  a {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  @media (max-width: 700px) {
    grid-template-columns: 48px minmax(0, 1fr);
    > span:last-child {
      grid-column: 2;
    }
  }
`
const Lines = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 1px 18px;
  font-size: 14.5px;
  li {
    overflow-wrap: anywhere;
  }
`
