import { useState } from 'react'
import styled from 'styled-components'
import { Plain } from '../../../ui/Button'
import type { Body } from '../../../api/outbox'
import type { Schemas } from '../../../api/client'
import type { Bench, Finding } from '../log/types'
import { BorrowSheet } from './BorrowSheet'
import { useFindings } from './useFindings'

const DEGREE = ['', 'slight', 'plain', 'bad']

function words(found: Finding, known: Schemas['CanBeFound'][], many: boolean): string {
  const name = known.find((each) => each.id === found.finding)?.words ?? found.finding.replaceAll('-', ' ')
  const at = [many ? found.side : '', found.rod === null ? '' : `rod ${found.rod}`].filter(Boolean).join(', ')
  return `${name}${at ? `, ${at}` : ''}`
}

/** The part that is wanted, where one is. */
const partOf = (found: Finding, known: Schemas['CanBeFound'][]): string =>
  known.find((each) => each.id === found.finding)?.part ?? ''

/** A part is wanted: to be fetched now, or owed after the job. */
function fetched(found: Finding, known: Schemas['CanBeFound'][]): string {
  const part = partOf(found, known)
  return part ? `, to fetch: ${part}` : ''
}

interface Props {
  bench: Bench
  enter: (body: Body) => void
  mayChange: boolean
}

/** What was found on this job and is not put right yet. It goes into the drum's record when the job closes. */
export function FoundList({ bench, enter, mayChange }: Props) {
  const known = useFindings(bench.kind)
  const [lending, setLending] = useState<Finding | null>(null)
  const open = bench.found.filter((each) => !each.put_right)
  if (!open.length || bench.state === 'closed') return null
  return (
    <Box aria-label="Found on this drum" role="region">
      {open.map((each) => (
        <li key={each.event}>
          <span>
            <b>Found:</b> {words(each, known, bench.heads.length > 1)} <small>{DEGREE[each.degree]}</small>
            <small>{fetched(each, known)}</small>
            {each.note ? <small> {each.note}</small> : null}
          </span>
          {mayChange ? (
            <span data-acts>
              {partOf(each, known) ? <Plain onPress={() => setLending(each)}>Borrow one</Plain> : null}
              <Plain onPress={() => enter({ kind: 'put_right', event: each.event })}>Put right</Plain>
            </span>
          ) : null}
        </li>
      ))}
      {lending ? (
        <BorrowSheet
          what={partOf(lending, known)}
          own={bench.tag}
          side={lending.side === 'resonant' ? 'resonant' : 'batter'}
          rod={lending.rod}
          onLent={(what, from_tag, from_rod) =>
            enter({ kind: 'lent', step: lending.step, what, from_tag, from_rod })
          }
          onClose={() => setLending(null)}
        />
      ) : null}
    </Box>
  )
}

const Box = styled.ul`
  border-left: 4px double var(--ink);
  background: var(--lifted);
  padding: 4px 14px;
  font-size: 15px;
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 10px;
    min-height: 48px;
  }
  [data-acts] {
    display: flex;
    gap: 8px;
  }
  small {
    color: var(--soft);
  }
`
