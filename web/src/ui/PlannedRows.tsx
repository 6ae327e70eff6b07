import { Link } from 'react-router'
import styled from 'styled-components'
import { dayOf, shortDate } from '../domain/dates'
import { many } from '../domain/counted'
import { Quiet } from './Button'
import { Num, Owed, Soft } from './Page'

interface Planned {
  id: string
  tag: string
  name: string
  work: string
  part: string
  title: string
  why: string
  due_on: string
  days_late: number
  heads: Readonly<Record<string, { head: string }>>
  lacks: number
  made_by: string
}

interface Props<P extends Planned> {
  rows: readonly P[]
  /** On its drum’s own sheet nobody needs to be told which. */
  ofOneDrum?: boolean
  onDrop: ((planned: P) => void) | null
  dropWords?: string
}

/** Work to come: what, by when, with which heads promised or still to be bought; begun with one press. */
export function PlannedRows<P extends Planned>({ rows, ofOneDrum, onDrop, dropWords = 'Drop it' }: Props<P>) {
  return (
    <List>
      {rows.map((each) => (
        <li key={each.id}>
          <div>
            <Link to={`/drums/${each.tag}/start?work=${each.work}&part=${each.part}`}>
              <b>
                {ofOneDrum ? '' : `${each.name}: `}
                <u>{each.title}</u>
              </b>
            </Link>{' '}
            {ofOneDrum ? null : <Num>{each.tag}</Num>}{' '}
            {each.days_late > 0 ? <Owed>{many(each.days_late, 'day')} late</Owed> : null}
            <Soft as="p">
              {[
                `by ${shortDate(dayOf(each.due_on))}`,
                ...Object.values(each.heads).map(({ head }) => `${head} promised`),
                each.lacks ? `${many(each.lacks, 'piece')} to be bought` : '',
              ]
                .filter(Boolean)
                .join(', ')}
              ; {[each.why, each.made_by].filter(Boolean).join(', ')}
            </Soft>
          </div>
          {onDrop ? <Quiet onPress={() => onDrop(each)}>{dropWords}</Quiet> : null}
        </li>
      ))}
    </List>
  )
}

const List = styled.ul`
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 10px;
    padding: 8px 0;
    border-top: 1px solid var(--rule);
    font-size: 15px;
  }
  li > button {
    white-space: nowrap;
  }
`
