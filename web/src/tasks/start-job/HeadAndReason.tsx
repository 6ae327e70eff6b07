import type { Schemas } from '../../api/client'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Select } from '../../ui/Select'
import { Problem } from '../../ui/Page'
import { OTHER_REASON, REASONS } from './reasons'
import { wrongKind, type Offer } from './useStartJob'

interface Props {
  offer: Offer
  heads: Schemas['FittingHead'][] | undefined
  stock: string
  onStock: (stock: string) => void
  /** What it is, where it does not come from the shelf. */
  named: string
  onNamed: (named: string) => void
  reason: string
  onReason: (reason: string) => void
  said: string
  onSaid: (said: string) => void
  /** Two heads stand beside each other: chosen from lists, so that all fits the screen. */
  beside: boolean
}

function noteOf(head: Schemas['FittingHead']): string {
  if (head.used && head.free) return `used, for an emergency only; shelf ${head.shelf}, ${head.free} there`
  if (head.promised) return `shelf ${head.shelf}, promised to this drum`
  if (head.free) return `shelf ${head.shelf}, ${head.free} free`
  return head.count ? 'all promised to other jobs' : 'none left'
}

/** Which head comes on, and why the old one goes. */
export function HeadAndReason(props: Props) {
  const { offer, heads, stock, onStock, named, onNamed, reason, onReason, said, onSaid, beside } = props
  const picked = heads?.find((head) => String(head.stock_item) === stock)
  const wrong = picked && wrongKind(picked, offer)
  const shelf = (heads ?? []).map((head) => ({
    value: String(head.stock_item),
    words: `${head.used ? 'used ' : ''}${head.head}, ${head.size}`,
    note: wrongKind(head, offer) ? `${wrongKind(head, offer)} ${noteOf(head)}` : noteOf(head),
    disabled: head.free === 0,
  }))
  const which = wrong ? (
    <Problem>{wrong} It can go on all the same; choose another one, or start with it.</Problem>
  ) : heads && (stock || 'none') === 'none' ? (
    <Field
      label="Which head is it?"
      value={named}
      onChange={onNamed}
      hint={
        offer.mesh
          ? 'as its box says, such as “two-layer mesh”; empty if nobody knows'
          : 'as its box says, such as “single 10 coated”; empty if nobody knows'
      }
      name="named"
    />
  ) : null
  return (
    <>
      {heads?.length === 0 ? (
        <p>No head of this size is on the shelf’s list. Start without one; the count stays.</p>
      ) : null}
      {beside ? (
        <>
          <Select
            label="Head from the shelf"
            value={stock || 'none'}
            onChange={onStock}
            options={[
              ...shelf
                .filter((each) => !each.disabled)
                .map(({ value, words, note }): [string, string] => [value, `${words}: ${note}`]),
              ['none', 'Not from the shelf: the count stays'],
            ]}
          />
          {which}
          <Select
            label="Why the old head goes"
            value={reason}
            onChange={onReason}
            options={[['', 'not said'], ...REASONS.map((each): [string, string] => [each, each])]}
          />
        </>
      ) : (
        <>
          <Choice
            label="Head from the shelf"
            value={stock || 'none'}
            onChange={onStock}
            options={[...shelf, { value: 'none', words: 'Not from the shelf', note: 'the count stays' }]}
          />
          {which}
          <Choice
            label="Why the old head goes"
            value={reason || null}
            onChange={onReason}
            options={REASONS.map((each) => ({ value: each, words: each }))}
          />
        </>
      )}
      {reason === OTHER_REASON ? (
        <Field label="In your words" value={said} onChange={onSaid} name="reason" />
      ) : null}
    </>
  )
}
