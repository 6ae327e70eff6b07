import { useState } from 'react'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'
import { ApiError } from '../../api/client'
import { mayChange, useSession } from '../../api/session'
import { dayOf, shortDate } from '../../domain/dates'
import { Quiet } from '../../ui/Button'
import { Empty, Head, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { Waiting } from '../../ui/Waiting'
import { Answer } from './Answer'
import { placeOf } from './axis'
import { DrumInKit } from './DrumInKit'
import { KitPicture } from './KitPicture'
import { SingSheet } from './SingSheet'
import { useKit, useWish, type Kit } from './useKit'
import { Wishes } from './Wishes'

/** Do these drums sound well together, and what would it take? */
export function KitPage() {
  const { kit = '' } = useParams()
  const found = useKit(Number(kit))
  if (found.error) return <Problem>{found.error.message}</Problem>
  return found.data ? <Planner key={found.data.id} kit={found.data} /> : <Waiting />
}

/** "Saturday 5 December, upper deck" as far as it is known. */
function whenAndWhere(kit: Kit): string {
  const day = kit.day ? shortDate(dayOf(kit.day)) : ''
  return [kit.occasion, day, kit.at].filter(Boolean).join(', ')
}

function Planner({ kit }: { kit: Kit }) {
  const may = mayChange(useSession().data)
  const { wish, setWish, plan, notKept, thinking } = useWish(kit, may)
  const [open, setOpen] = useState<string | null>(null)
  const [sing, setSing] = useState(false)
  useKeys({ r: may ? () => setSing(true) : undefined })
  const planned = kit.drums.filter((each) => !each.left_out)
  const known = kit.drums.flatMap(({ tag, name, left_out, notes }) =>
    (left_out ? [left_out] : notes).map((words) => ({ tag, name, words })),
  )
  const drum = planned.find((each) => each.tag === open)
  const refused = plan.error instanceof ApiError ? (plan.error.body.fields ?? {}) : {}
  const shown = plan.error ? undefined : plan.data
  return (
    <Page>
      <Head>
        <h1>{kit.name}</h1>
        <Soft>{whenAndWhere(kit)}</Soft>
        <End data-end>
          <Legend>
            <span data-sign="batter" /> batter <span data-sign="resonant" /> resonant{' '}
            <span data-sign="note" /> the drum’s note <span data-sign="now" /> now
          </Legend>
          {may && planned.length > 1 ? (
            <Quiet onPress={() => setSing(true)}>
              <u>who answers?</u>
            </Quiet>
          ) : null}
          {may && kit.drums.length ? (
            <Link to={`/callouts?kit=${kit.id}`}>
              <u>call-out</u>
            </Link>
          ) : null}
          {may ? (
            <Link to={`/kits/${kit.id}/edit`}>
              <u>its drums</u>
            </Link>
          ) : null}
          <Link to="/kits">
            <u>Kits</u>
          </Link>
        </End>
      </Head>
      <Columns>
        <Left aria-label="The kit by pitch">
          {planned.length ? (
            <KitPicture kit={kit} plan={shown} stays={wish.stays ?? []} onDrum={setOpen} />
          ) : (
            <Empty>
              {kit.drums.length
                ? 'No drum of this kit has film heads on rods, so nothing can be reckoned.'
                : 'No drum is in this kit yet. Choose them under “its drums”.'}
            </Empty>
          )}
          {known.length ? (
            <Beside>
              {known.map(({ tag, name, words }) => (
                <span key={tag + words}>
                  <b>{name}</b> {words}
                </span>
              ))}
            </Beside>
          ) : null}
        </Left>
        <Right aria-label="What is wanted">
          <Wishes kit={kit} wish={wish} setWish={setWish} refused={refused} />
          {notKept ? <Problem>The wish is not kept: {notKept.message}</Problem> : null}
          {plan.error ? <Problem>{plan.error.message}</Problem> : null}
          {shown ? <Answer kit={kit} plan={shown} thinking={thinking} mayChange={may} /> : null}
        </Right>
      </Columns>
      {sing ? <SingSheet kit={kit} wish={wish} onWish={setWish} onClose={() => setSing(false)} /> : null}
      {drum ? (
        <DrumInKit
          drum={drum}
          placed={placeOf(shown, drum)}
          wish={wish}
          onWish={setWish}
          onClose={() => setOpen(null)}
        />
      ) : null}
    </Page>
  )
}

const End = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 22px;
  > button {
    min-height: 44px;
    margin: -13px 0;
    padding: 0;
    font: inherit;
  }
`
const Legend = styled.span`
  font-size: 14px;
  color: var(--soft);
  span {
    display: inline-block;
    width: 20px;
    margin: 0 3px 3px 12px;
    vertical-align: middle;
    border-top: 3px solid var(--ink);
  }
  @media (max-width: 700px) {
    font-size: 12.5px;
    span {
      margin-left: 6px;
      width: 15px;
    }
  }
  span[data-sign='batter'] {
    border-top-width: 6px;
    border-radius: 3px;
  }
  span[data-sign='note'] {
    width: 11px;
    height: 11px;
    border: 0;
    border-radius: 50%;
    background: var(--ink);
  }
  span[data-sign='now'] {
    border-top: 2px dotted var(--soft);
  }
`
const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 352px;
  min-height: 0;
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
  }
`
const Left = styled.section`
  display: flex;
  flex-direction: column;
  min-width: 0;
  padding: 14px 20px 8px 28px;
  @media (max-width: 700px) {
    padding: 8px 10px;
  }
`
const Right = styled.section`
  display: flex;
  flex-direction: column;
  gap: 14px;
  padding: 16px 28px 22px 24px;
  border-left: 1px solid var(--rule);
  min-width: 0;
  @media (max-width: 1000px) {
    border-left: 0;
    border-top: 1px solid var(--rule);
    padding: 14px 16px 20px;
  }
`
const Beside = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  padding: 8px 0 4px;
  border-top: 1px solid var(--rule);
  font-size: 14px;
  color: var(--soft);
  b {
    color: var(--ink);
    font-weight: 600;
  }
`
