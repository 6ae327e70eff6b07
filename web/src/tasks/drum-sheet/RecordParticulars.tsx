import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { span } from '../../domain/dates'
import { hz } from '../../domain/pitch'
import { turnWords, turns32 } from '../../domain/turns'
import { Num, Soft } from '../../ui/Page'

/** What a closed job leaves behind, as the server stores it. Older entries may lack parts. */
interface JobRecord {
  tally_32?: Record<string, number>
  rounds?: {
    readings_hz: Record<string, number>
    turns_32: Record<string, number>
    spread_hz: number | null
    mean_hz: number | null
  }[]
  durations?: { step: string; minutes: number }[]
  people?: string[]
  old_head?: string
  reason?: string
  notes?: string[]
  answers?: Record<string, string>
}

const byRod = (values: Record<string, number>): [string, number][] =>
  Object.entries(values).sort(([a], [b]) => Number(a) - Number(b))

/** Turns per rod, readings per round, durations, who. */
export function RecordParticulars({ entry }: { entry: Schemas['LogOut'] }) {
  const record = entry.record as JobRecord
  const rods = Object.keys(record.rounds?.[0]?.readings_hz ?? record.tally_32 ?? {}).sort(
    (a, b) => Number(a) - Number(b),
  )
  const total = (record.durations ?? []).reduce((sum, each) => sum + each.minutes, 0)
  return (
    <Box>
      <p>
        {(record.people?.length ? record.people : [entry.by]).join(' and ')}
        {record.old_head ? <Soft>; old head: {record.old_head}</Soft> : null}
        {record.reason ? <Soft>, {record.reason}</Soft> : null}
      </p>
      {rods.length ? (
        <div>
          <table>
            <thead>
              <tr>
                <th scope="col">Rod</th>
                {rods.map((rod) => (
                  <th key={rod} scope="col">
                    {rod}
                  </th>
                ))}
                <th scope="col">Spread</th>
              </tr>
            </thead>
            <tbody>
              {(record.rounds ?? []).map((round, n) => (
                <Rows key={n} n={n} round={round} rods={rods} />
              ))}
              {record.tally_32 && Object.keys(record.tally_32).length ? (
                <tr>
                  <th scope="row">From fingers</th>
                  {rods.map((rod) => (
                    <td key={rod}>{turnWords(turns32(record.tally_32?.[rod] ?? 0))}</td>
                  ))}
                  <td />
                </tr>
              ) : null}
            </tbody>
          </table>
        </div>
      ) : null}
      {record.durations?.length ? (
        <p>
          <Soft>
            {record.durations.map((each) => `${each.step} ${span(each.minutes)}`).join(', ')}; {span(total)}{' '}
            in all
          </Soft>
        </p>
      ) : null}
      {Object.entries(record.answers ?? {}).map(([asked, said]) => (
        <p key={asked}>
          <Soft>{asked}:</Soft> {said}
        </p>
      ))}
      {record.notes?.map((note) => (
        <p key={note}>“{note}”</p>
      ))}
    </Box>
  )
}

function Rows({
  n,
  round,
  rods,
}: {
  n: number
  round: NonNullable<JobRecord['rounds']>[number]
  rods: string[]
}) {
  return (
    <>
      <tr>
        <th scope="row">Round {n + 1}, Hz</th>
        {rods.map((rod) => (
          <td key={rod}>
            <Num>{round.readings_hz[rod] === undefined ? '' : hz(round.readings_hz[rod])}</Num>
          </td>
        ))}
        <td>
          <Num>{round.spread_hz === null ? '' : hz(round.spread_hz)}</Num>
        </td>
      </tr>
      {byRod(round.turns_32).length ? (
        <tr>
          <th scope="row">turned</th>
          {rods.map((rod) => (
            <td key={rod}>{round.turns_32[rod] ? turnWords(turns32(round.turns_32[rod])) : ''}</td>
          ))}
          <td />
        </tr>
      ) : null}
    </>
  )
}

const Box = styled.div`
  padding: 12px 0 16px;
  display: flex;
  flex-direction: column;
  gap: 8px;
  border-bottom: 1px solid var(--rule);
  font-size: 14.5px;
  > div {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
  }
  th,
  td {
    padding: 4px 10px 4px 0;
    text-align: left;
    font-weight: 400;
    font-size: 13.5px;
    white-space: nowrap;
  }
  thead th {
    font: 600 14px var(--slab);
  }
  tbody th {
    color: var(--soft);
  }
`
