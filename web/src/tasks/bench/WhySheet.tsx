import styled from 'styled-components'
import { cents, hz } from '../../domain/pitch'
import { turnWords, turns32 } from '../../domain/turns'
import { Plain } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Num } from '../../ui/Page'
import type { Lap } from './state/types'

/** The readings behind a round's turns, what they should come to, and how sure that is. */
export function WhySheet({ lap, onClose }: { lap: Lap; onClose: () => void }) {
  const { plan } = lap
  if (!plan) return null
  return (
    <Dialog title="Why these turns" open onClose={onClose}>
      <p>{plan.why}</p>
      <p>{plan.verdict}</p>
      <Table>
        <thead>
          <tr>
            <th>Rod</th>
            <th>Read</th>
            <th>Off</th>
            <th>Turn</th>
            <th>Expected</th>
          </tr>
        </thead>
        <tbody>
          {lap.rods.map((rod) => (
            <tr key={rod.rod}>
              <th>{rod.rod}</th>
              <td>
                <Num>{rod.reading && !Number.isNaN(rod.reading.hz) ? hz(rod.reading.hz) : ''}</Num>
              </td>
              <td>
                {rod.reading?.cents === null || rod.reading?.cents === undefined
                  ? ''
                  : `${cents(rod.reading.cents)} cents`}
              </td>
              <td>{turnWords(turns32(rod.owed_32 ?? 0))}</td>
              <td>
                <Num>
                  {rod.predicted_hz ? hz(rod.predicted_hz) : ''} ± {hz(rod.predicted_sd_hz ?? 0)}
                </Num>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p>
        Worked out in the square of pitch, since tension goes with it. Each rod moves itself and the one
        facing it, its neighbours less; how much is learned from this drum’s own rounds. {plan.too_coarse}
      </p>
      <div>
        <Plain onPress={onClose} autoFocus>
          Close
        </Plain>
      </div>
    </Dialog>
  )
}

const Table = styled.table`
  border-collapse: collapse;
  font-size: 14.5px;
  th,
  td {
    text-align: left;
    padding: 5px 8px 5px 0;
    border-top: 1px solid var(--rule);
    font-weight: 400;
  }
  thead th {
    color: var(--soft);
    border: 0;
    font-size: 13px;
  }
  tbody th {
    font: 600 16px var(--slab);
  }
`
