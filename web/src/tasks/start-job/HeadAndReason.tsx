import type { Schemas } from '../../api/client'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Select } from '../../ui/Select'
import { OTHER_REASON, REASONS } from './reasons'

interface Props {
  heads: Schemas['FittingHead'][] | undefined
  stock: string
  onStock: (stock: string) => void
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
export function HeadAndReason({ heads, stock, onStock, reason, onReason, said, onSaid, beside }: Props) {
  const shelf = (heads ?? []).map((head) => ({
    value: String(head.stock_item),
    words: `${head.used ? 'used ' : ''}${head.head}, ${head.size}`,
    note: noteOf(head),
    disabled: head.free === 0,
  }))
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
            value={stock || null}
            onChange={onStock}
            options={[...shelf, { value: 'none', words: 'Not from the shelf', note: 'the count stays' }]}
          />
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
