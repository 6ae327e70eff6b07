import styled from 'styled-components'
import { putAway, type Body, type BenchEntry } from '../../api/outbox'
import { Plain } from '../../ui/Button'
import type { Bench } from './log/types'
import { entryWords } from './log/words'

interface Props {
  bench: Bench
  refused: BenchEntry[]
  enter: (body: Body) => void
}

/** Entries that two people made unknowingly of each other, and entries the server would not take: shown until decided. */
export function Disputes({ bench, refused, enter }: Props) {
  if (!bench.conflicts.length && !refused.length) return null
  return (
    <Box aria-label="To decide" role="region">
      {bench.conflicts.map((each) => (
        <li key={each.event}>
          <p>
            <b>Two entries for {each.about}.</b> {each.first}. {each.second}. Neither knew of the other; the
            first stands.
          </p>
          <div>
            <Plain onPress={() => enter({ kind: 'settle', event: each.event, take: 'first' })}>
              Keep the first
            </Plain>
            <Plain onPress={() => enter({ kind: 'settle', event: each.event, take: 'second' })}>
              Take the second
            </Plain>
            {each.can_be_both ? (
              <Plain onPress={() => enter({ kind: 'settle', event: each.event, take: 'both' })}>
                Both happened
              </Plain>
            ) : null}
          </div>
        </li>
      ))}
      {refused.map((entry) => (
        <li key={entry.event.id}>
          <p role="alert">
            <b>Not taken: {entryWords(entry.event.body)}.</b> {entry.message}
          </p>
          <div>
            <Plain onPress={() => void putAway(entry)}>Put away</Plain>
          </div>
        </li>
      ))}
    </Box>
  )
}

const Box = styled.ul`
  grid-area: disputes;
  border-bottom: 1px solid var(--ink);
  background: var(--lifted);
  max-height: 40dvh;
  overflow: auto;
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 8px 24px;
    padding: 10px 28px;
  }
  li + li {
    border-top: 1px solid var(--rule);
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
`
