import styled from 'styled-components'
import { Key, Plain } from '../../ui/Button'
import type { Tick } from './log/fold'

const IN_SIGHT = 8

interface Props {
  ticks: readonly Tick[]
  ticked: ReadonlySet<string>
  all: boolean
  onAll: (all: boolean) => void
  onTick: (tick: Tick) => void
}

/** How many ticks show before the rest is asked for. */
export const inSight = (ticks: readonly Tick[], all: boolean): readonly Tick[] =>
  all || ticks.length <= IN_SIGHT + 1 ? ticks : ticks.slice(0, IN_SIGHT)

/** What can be found on this part, one large tick each; the usual ones first. */
export function Ticks({ ticks, ticked, all, onAll, onTick }: Props) {
  const shown = inSight(ticks, all)
  return (
    <Grid aria-label="What can be found here" role="group">
      {shown.map((tick, n) => (
        <Plain key={tick.id} aria-pressed={ticked.has(tick.id)} onPress={() => onTick(tick)}>
          {tick.short}
          {n < 9 ? <Key>{n + 1}</Key> : null}
        </Plain>
      ))}
      {ticks.length > shown.length || all ? (
        <Plain aria-expanded={all} onPress={() => onAll(!all)} data-more>
          {all ? 'Fewer' : `${ticks.length - shown.length} more`} <Key>M</Key>
        </Plain>
      ) : null}
    </Grid>
  )
}

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(30%, 124px), 1fr));
  gap: 8px;
  > button {
    min-height: 56px;
    padding: 4px 8px;
    justify-content: center;
    text-align: center;
    gap: 8px;
    border-color: var(--rule);
    font: 500 15.5px/1.2 var(--text);
  }
  > button[aria-pressed='true'] {
    border-color: var(--ink);
    background: var(--ink);
    color: var(--on-ink);
  }
  > button[data-more] {
    border-style: dashed;
  }
`
