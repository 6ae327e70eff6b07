import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { Main, Plain } from '../../ui/Button'
import type { Schemas } from '../../api/client'

type Sheet = Schemas['Sheet']
type Offer = Sheet['work'][number]

type Work = [words: string, to: string]

/** Jobs in hand first, then checks that are due, then what the catalogue offers for this drum. */
function worksOf(sheet: Sheet): Work[] {
  const jobs = new Map(
    sheet.sides.flatMap((side) =>
      side.job_id ? [[side.job_id, `Go on with the ${side.side}`] as const] : [],
    ),
  )
  const inHand = [...jobs].map(([job, words]): Work => [words, `/bench/${job}`])
  const can = sheet.work.filter((offer) => !offer.why_not && !offer.in_hand)
  const start = (offer: Offer) => `/drums/${sheet.tag}/start?work=${offer.work}&part=${offer.part}`
  const due = (offer: Offer) =>
    offer.answers_checks ? sheet.sides.find((side) => side.side === offer.part && side.check_due) : undefined
  const checks = can.flatMap((offer): Work[] => {
    const side = due(offer)
    return side ? [[`Check the ${side.side}${side.check_overdue ? '' : ' early'}`, start(offer)]] : []
  })
  const fitted = (offer: Offer) =>
    offer.changes_heads || offer.sides.every((each) => sheet.sides.find((side) => side.side === each)?.head)
  const rest = can
    .filter((offer) => !due(offer) && fitted(offer))
    .map((offer): Work => [offer.words, start(offer)])
  return [...inHand, ...checks, ...rest]
}

/** What can be done with this drum, the most pressing first and largest. */
export function NextWork({ sheet }: { sheet: Sheet }) {
  const navigate = useNavigate()
  const go = (to: string) => () => void navigate(to)
  const works = worksOf(sheet)
  if (!works.length) return null
  return (
    <Foot>
      {works.slice(0, 5).map(([words, to], n) =>
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
