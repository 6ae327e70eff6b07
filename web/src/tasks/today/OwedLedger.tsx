import { Link } from 'react-router'
import styled from 'styled-components'
import { span } from '../../domain/dates'
import { Quiet } from '../../ui/Button'
import { Count } from '../../ui/Count'
import { actionOf } from './links'
import type { OwedItem } from './owed'

const GROUP: Record<string, string> = {
  'overdue-check': 'Overdue',
  rested: 'Rested',
  'to-decide': 'To decide',
  'planned-work': 'To do',
  lent: 'Lent',
  reported: 'Reported',
  'to-buy': 'To buy',
  'aged-head': 'Past its age',
}

/** Strokes are days or months where they count something; else the words alone. */
const PLAIN: Record<string, string> = {
  due: 'due today',
  rested: 'rested',
  'looked at today': 'looked at today',
  'lent today': 'lent today',
  'over today': 'today',
  'sent today': 'sent today',
  short: 'short',
}

const MORE: Record<string, string> = {
  'overdue-check': 'overdue',
  'to-decide': 'to decide',
  'planned-work': 'to do',
  lent: 'lent',
  reported: 'reported',
  'aged-head': 'past their age',
}

/** Unit of the strokes, in the right number. */
const unitOf = (item: OwedItem): string =>
  item.count === 1 ? item.unit.replace('days', 'day').replace('months', 'month') : item.unit

interface Props {
  items: OwedItem[]
  /** How many lines of a group are not shown. */
  left?: Record<string, number>
  onMore?: (kind: string) => void
}

/** The owed list: strokes for how long, the reason in words, the one next action. */
export function OwedLedger({ items, left = {}, onMore }: Props) {
  const lastOf = (item: OwedItem, n: number) => item.kind !== items[n + 1]?.kind
  return (
    <List>
      {items.map((item, n) => (
        <li key={`${item.kind}${item.tag}${item.side}${item.reason}`}>
          <Row to={actionOf(item)} data-first={item.kind !== items[n - 1]?.kind || undefined}>
            <small>{item.kind !== items[n - 1]?.kind ? GROUP[item.kind] : ''}</small>
            <span>
              <Count count={item.count} owed />
              <em>{PLAIN[item.unit] ?? `${item.count} ${unitOf(item)}`}</em>
            </span>
            <h2>
              {item.name}
              <i>{item.kind_words}</i>
            </h2>
            <p>{item.reason}</p>
            <strong>
              {item.action}
              {item.minutes ? <i>{span(item.minutes)}</i> : null}
            </strong>
          </Row>
          {onMore && lastOf(item, n) && (left[item.kind] ?? 0) > 0 ? (
            <More>
              <Quiet onPress={() => onMore(item.kind)}>
                {left[item.kind]} more {MORE[item.kind] ?? ''}
              </Quiet>
            </More>
          ) : null}
        </li>
      ))}
    </List>
  )
}

const More = styled.div`
  padding: 2px 18px 6px;
`
const List = styled.ul`
  li {
    border-bottom: 1px solid var(--rule);
  }
`
const Row = styled(Link)`
  display: grid;
  grid-template-columns: 92px 88px 128px minmax(0, 1fr) 116px;
  align-items: center;
  gap: 0 14px;
  min-height: 60px;
  padding: 6px 28px;
  outline-offset: -3px;
  &:hover {
    background: var(--lifted);
  }
  small {
    font: 600 14.5px/1.2 var(--slab);
    color: var(--soft);
  }
  span {
    display: flex;
    flex-direction: column;
    gap: 1px;
  }
  svg {
    height: 25px;
    width: auto;
    align-self: flex-start;
  }
  em {
    font-style: normal;
    font-size: 12.5px;
    line-height: 1.15;
    color: var(--red);
  }
  h2 {
    font-size: 19px;
  }
  i {
    display: block;
    font: 400 13px var(--text);
    letter-spacing: 0;
    color: var(--soft);
  }
  p {
    font-size: 15px;
    line-height: 1.3;
  }
  strong {
    text-align: right;
    color: var(--red);
    font-weight: 650;
    line-height: 1.25;
  }
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) auto;
    padding: 10px 16px;
    gap: 2px 12px;
    small {
      grid-column: 1 / -1;
      padding-bottom: 2px;
    }
    small:empty {
      display: none;
    }
    span {
      order: 2;
      justify-self: end;
      align-items: flex-end;
    }
    svg {
      align-self: flex-end;
    }
    p {
      order: 3;
    }
    strong {
      order: 4;
    }
  }
`
