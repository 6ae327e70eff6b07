import { Link } from 'react-router'
import { Field } from '../../ui/Field'
import { HeadAndReason } from './HeadAndReason'
import type { Offer, Side, useStartJob } from './useStartJob'

interface Props {
  tag: string
  side: Side
  offer: Offer
  start: ReturnType<typeof useStartJob>
  problem: string | undefined
}

/** What comes on one side, why the old head goes, and the pitch it is brought to. */
export function OneHead({ tag, side, offer, start, problem }: Props) {
  const head = start.headOf(side)
  const above = start.wayOf('leave_above') === 'true'
  return (
    <section aria-label={`${side} head`}>
      {offer.sides.length > 1 ? <h2>{side}</h2> : null}
      {offer.changes_heads ? (
        <HeadAndReason
          offer={offer}
          heads={start.shelfOf(side)}
          named={head.named}
          onNamed={(named) => start.setHead(side, { named })}
          stock={start.stockOf(side)}
          onStock={(picked) => start.setHead(side, { picked })}
          reason={head.reason}
          onReason={(reason) => start.setHead(side, { reason })}
          said={head.said}
          onSaid={(said) => start.setHead(side, { said })}
          beside={offer.sides.length > 1}
        />
      ) : null}
      {offer.changes_heads && !offer.mesh ? (
        <p>
          <Link to={`/drums/${tag}/choose?side=${side}`}>
            <u>Which head for which sound?</u>
          </Link>
        </p>
      ) : null}
      {offer.mesh ? null : (
        <Field
          label={`Wanted pitch at the ${side} rods`}
          value={head.target}
          onChange={(target) => start.setHead(side, { target })}
          name={`target-${side}`}
          error={problem}
          hint={
            offer.changes_heads
              ? `hertz or a note, such as 175 or F3 +5; empty: hold the pitch it comes to${above ? '. A new head is left above it here, by what it will drop' : ''}`
              : 'empty: even it where it stands'
          }
        />
      )}
    </section>
  )
}
