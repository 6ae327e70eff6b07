import { Link } from 'react-router'
import styled from 'styled-components'
import { soon, span } from '../../domain/dates'
import { Soft } from '../../ui/Page'
import { actionOf } from './links'
import type { OwedItem } from './owed'

const DAY_MINUTES = 24 * 60

/** In hand, resting with the time left, and checks that are coming. Nothing here is owed, so nothing here is red. */
export function SideColumn({ items }: { items: OwedItem[] }) {
  const of = (kind: string) => items.filter((item) => item.kind === kind)
  const [hand, resting, fetch] = [of('in-hand'), of('resting'), of('to-fetch')]
  const coming = [...of('coming-check'), ...of('coming-work'), ...of('coming-callout')].sort((a, b) =>
    (a.ready_at ?? '').localeCompare(b.ready_at ?? ''),
  )
  return (
    <Column aria-label="In hand, resting, coming">
      <h2>In hand</h2>
      {hand.length === 0 ? <p>No job is open. Start one from a drum’s sheet.</p> : null}
      {hand.map((item) => (
        <Line key={item.job_id} to={actionOf(item)}>
          <b>{item.name}</b>
          <span>Go on</span>
          <small>{item.reason}</small>
        </Line>
      ))}
      {resting.length ? <h2>Resting</h2> : null}
      {resting.map((item) => (
        <Line key={item.job_id} to={actionOf(item)}>
          <b>{item.name}</b>
          <span>{span(item.minutes_left ?? 0)} left</span>
          <Left aria-hidden>
            <div
              style={{ width: `${100 - Math.min(100, ((item.minutes_left ?? 0) / DAY_MINUTES) * 100)}%` }}
            />
          </Left>
          <small>ready {item.ready_at ? soon(new Date(item.ready_at)) : ''}</small>
        </Line>
      ))}
      {fetch.length ? <h2>To fetch</h2> : null}
      {fetch.map((item) => (
        <Line key={item.tag + item.reason} to={actionOf(item)}>
          <b>{item.name}</b>
          <small>{item.reason}</small>
        </Line>
      ))}
      {coming.length ? <h2>Coming</h2> : null}
      {coming.map((item) => (
        <Line
          key={item.kind + item.tag + item.side + (item.callout_id ?? '')}
          to={item.kind !== 'coming-check' ? actionOf(item) : `/drums/${item.tag}`}
        >
          <b>{item.name}</b>
          <span>
            {item.ready_at
              ? soon(new Date(item.ready_at)).replace(item.kind === 'coming-work' ? ' 09:00' : '', '')
              : ''}
          </span>
          {item.kind === 'coming-callout' ? <small>call-out: {item.reason}</small> : null}
          {item.kind === 'coming-work' ? <small>{item.reason.replace(/, due [^,]*$/, '')}</small> : null}
        </Line>
      ))}
      {coming.length || resting.length ? null : <Soft>Nothing rests and no check is coming.</Soft>}
    </Column>
  )
}

const Column = styled.section`
  padding: 16px 28px 24px;
  h2 {
    font-size: 17px;
    padding: 14px 0 7px;
    border-bottom: 1px solid var(--ink);
  }
  h2:first-child {
    padding-top: 4px;
  }
  > p {
    padding: 10px 0;
    color: var(--soft);
    font-size: 15px;
  }
  @media (max-width: 700px) {
    padding: 12px 16px 24px;
  }
`
const Line = styled(Link)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 1px 12px;
  padding: 8px 0 9px;
  border-bottom: 1px solid var(--rule);
  &:hover {
    background: var(--lifted);
  }
  b {
    font: 600 17px var(--slab);
  }
  span {
    font-weight: 600;
    font-size: 15px;
  }
  small {
    grid-column: 1 / -1;
    font-size: 14px;
    color: var(--soft);
  }
`
const Left = styled.div`
  grid-column: 1 / -1;
  height: 6px;
  margin: 3px 0;
  background: var(--rule);
  div {
    height: 100%;
    background: var(--ink);
  }
`
