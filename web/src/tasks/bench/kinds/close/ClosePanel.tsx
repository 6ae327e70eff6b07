import { Checkbox } from 'react-aria-components'
import styled from 'styled-components'
import { Field } from '../../../../ui/Field'
import type { Bench } from '../../log/types'
import { useNow } from '../../../../ui/useNow'
import { Label, Panel, Say } from '../../parts'

interface Props {
  bench: Bench
  reason: string
  onReason: (reason: string) => void
  check: boolean
  onCheck: (check: boolean) => void
  days: number
}

/** What to write on the head, why the old one went, when to come back. */
export function ClosePanel({ bench, reason, onReason, check, onCheck, days }: Props) {
  const { changes_heads: changing, heads } = bench
  const old = heads.flatMap((each) => each.old_head || []).join(', ')
  const settling = heads.map((each) => each.settling_words).find(Boolean)
  const due = new Date(useNow(60_000) + days * 86_400_000)
  return (
    <Panel>
      {changing ? (
        <>
          <Label>Write on {heads.length > 1 ? 'both heads' : 'the head'}, near the logo</Label>
          <Written>{bench.write_on_head}</Written>
          <Field
            label={`Why the old ${heads.length > 1 ? 'heads go' : 'head goes'}${old ? ` (${old})` : ''}`}
            value={reason}
            onChange={onReason}
            name="reason"
          />
          {bench.books_check ? (
            <Tick isSelected={check} onChange={onCheck}>
              <i />
              <span>
                Book the settling check for{' '}
                {due.toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })}
                <small>new film drops in its first days of playing</small>
              </span>
            </Tick>
          ) : null}
          {settling ? <Label>{settling}</Label> : null}
        </>
      ) : (
        <Say>{bench.steps.at(-1)?.say}</Say>
      )}
    </Panel>
  )
}

const Written = styled.p`
  font: 700 76px/1 var(--slab);
  letter-spacing: -0.02em;
  @media (max-width: 700px) {
    font-size: 54px;
  }
`
const Tick = styled(Checkbox)`
  display: flex;
  gap: 14px;
  align-items: flex-start;
  min-height: 48px;
  padding: 8px 0;
  cursor: pointer;
  font-weight: 550;
  i {
    flex: none;
    width: 26px;
    height: 26px;
    border: 2px solid var(--ink);
    border-radius: 2px;
  }
  &[data-selected] i {
    background: linear-gradient(var(--ink), var(--ink)) center / 14px 14px no-repeat;
  }
  small {
    display: block;
    font-weight: 400;
    color: var(--soft);
  }
`
