import styled from 'styled-components'
import { cents } from '../../../../domain/pitch'
import { turnWords, turns32 } from '../../../../domain/turns'
import { Plain } from '../../../../ui/Button'
import { Dialog } from '../../../../ui/Dialog'
import { Num } from '../../../../ui/Page'
import { PullPicture } from './PullPicture'
import type { Lap } from '../../log/types'

interface Props {
  lap: Lap
  badge: string
  count: number
  onClose: () => void
}

const share = (chance: number): string =>
  chance > 0.99 ? 'Over 99 in 100' : chance < 0.01 ? 'Under 1 in 100' : `${Math.round(chance * 100)} in 100`
const roundsWords = (rounds: number): string => (rounds < 1.5 ? 'one round' : `${Math.round(rounds)} rounds`)

/** The readings behind a round's turns, what they should come to, and how sure that is. */
export function WhySheet({ lap, badge, count, onClose }: Props) {
  const plan = lap.left ?? lap.plan
  if (!plan) return null
  return (
    <Dialog title="Why these turns" open wide onClose={onClose}>
      <p>{plan.why}</p>
      <Two>
        <div>
          <Readings lap={lap} />
        </div>
        <div>
          <p>{plan.verdict}</p>
          <PullPicture pull={plan.pull} badge={badge} count={count} />
          <p>
            {plan.approach === 'done' ? '' : `About ${roundsWords(plan.rounds_left)} to go: `}
            {share(plan.chance_even)} that it is even after these turns.{' '}
            {plan.means === 'pitch'
              ? `${share(plan.modal)} that this head answers pair by pair, so that lopsided pulls go unheard. `
              : ''}
            Worked out in tension; how much each rod moves itself, its neighbours and the one facing it is
            learned from this drum’s own rounds. {plan.too_coarse}
          </p>
        </div>
      </Two>
      <div>
        <Plain onPress={onClose} autoFocus>
          Close
        </Plain>
      </div>
    </Dialog>
  )
}

function Readings({ lap }: { lap: Lap }) {
  return (
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
              <Num>{rod.reference ? 'compare' : (rod.reading?.shown ?? '')}</Num>
            </td>
            <td>
              {rod.reading?.cents === null || rod.reading?.cents === undefined
                ? ''
                : `${cents(rod.reading.cents)} cents`}
            </td>
            <td>{turnWords(turns32(rod.owed_32 ?? 0))}</td>
            <td>
              <Num>{rod.predicted}</Num>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  )
}

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 16px 32px;
  font-size: 15px;
  > div {
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`
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
