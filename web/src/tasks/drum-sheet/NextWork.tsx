import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { Main, Plain } from '../../ui/Button'
import type { Sheet } from './SheetPage'

/** What can be done with this drum, the most pressing first and largest. */
export function NextWork({ sheet }: { sheet: Sheet }) {
  const navigate = useNavigate()
  const go = (to: string) => () => void navigate(to)
  const works: [string, string][] = []
  for (const side of sheet.sides)
    if (side.job_id) works.push([`Go on with the ${side.side}`, `/bench/${side.job_id}`])
  const start = (procedure: string, side: string) =>
    `/drums/${sheet.tag}/start?procedure=${procedure}&side=${side}`
  for (const side of sheet.sides)
    if (side.check_due && !side.job_id)
      works.push([
        side.check_overdue ? `Check the ${side.side}` : `Check the ${side.side} early`,
        start('settling-check', side.side),
      ])
  const batter = sheet.sides.find((side) => side.side === 'batter')
  if (sheet.can_change_batter && !batter?.job_id)
    works.push(['New batter head', start('new-batter-head', 'batter')])
  for (const side of sheet.sides)
    if (side.rods && side.head && !side.job_id && !side.check_due && sheet.state !== 'retired')
      works.push([`Clear the ${side.side}`, start('settling-check', side.side)])
  if (!works.length) return null
  return (
    <Foot>
      {works.slice(0, 4).map(([words, to], n) =>
        n === 0 ? (
          <Main key={words} onPress={go(to)}>
            {words}
          </Main>
        ) : (
          <Plain key={words} onPress={go(to)}>
            {words}
          </Plain>
        ),
      )}
    </Foot>
  )
}

const Foot = styled.footer`
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  padding: 12px 28px;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  @media (max-width: 700px) {
    position: static;
    padding: 12px 16px;
    > * {
      flex: 1 1 40%;
    }
  }
`
