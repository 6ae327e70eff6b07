import { useState } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import { Link } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../domain/dates'
import { Soft } from '../../ui/Page'
import { Correction } from './Correction'
import { WriteNote } from './WriteNote'
import { RecordParticulars } from './RecordParticulars'

interface Props {
  tag: string
  log: Schemas['LogOut'][]
  inHand: Schemas['FittedOut'][]
  may: boolean
}

/** Everything that happened, newest first; a line opens to its particulars. */
export function Timeline({ tag, log, inHand, may }: Props) {
  const [open, setOpen] = useState<number | null>(null)
  return (
    <div>
      <Title>History</Title>
      {may ? <WriteNote tag={tag} /> : null}
      {log.length === 0 ? <Soft>Nothing on record yet.</Soft> : null}
      <ol>
        {inHand.map((side) => (
          <li key={side.side}>
            <Line as={Link} to={`/bench/${side.job_id}`}>
              <time>now</time>
              <span>On the bench: {side.job_where}</span>
              <b>in hand</b>
            </Line>
          </li>
        ))}
        {log.map((entry) => (
          <li key={entry.id}>
            <Line
              onPress={() => setOpen(open === entry.id ? null : entry.id)}
              aria-expanded={open === entry.id}
            >
              <time dateTime={entry.at}>{shortDate(new Date(entry.at))}</time>
              <span>{entry.text}</span>
              <Soft>{entry.outcome || entry.by.split(' ')[0]}</Soft>
            </Line>
            {open === entry.id ? (
              <>
                <RecordParticulars entry={entry} />
                <Beside>
                  <Correction tag={tag} entry={entry} may={may} />
                </Beside>
              </>
            ) : null}
          </li>
        ))}
      </ol>
    </div>
  )
}

const Title = styled.h2`
  font-size: 18px;
  padding: 8px 0 6px;
  border-bottom: 1px solid var(--ink);
`
const Beside = styled.div`
  padding: 0 0 12px;
`
const Line = styled(AriaButton)`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) auto;
  gap: 12px;
  align-items: baseline;
  width: 100%;
  padding: 9px 0 10px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: transparent;
  text-align: left;
  font-size: 15px;
  line-height: 1.35;
  cursor: pointer;
  time {
    font: 400 13px var(--mono);
    letter-spacing: -0.03em;
    color: var(--soft);
  }
  &[data-hovered],
  &:hover {
    background: var(--lifted);
  }
  @media (max-width: 700px) {
    grid-template-columns: 74px minmax(0, 1fr);
    > :last-child {
      grid-column: 2;
    }
  }
`
