import { ToggleButton } from 'react-aria-components'
import styled from 'styled-components'
import type { Exception, Exceptions } from './useExceptions'

interface Props {
  group: readonly number[]
  exceptions: Exceptions
}

const ROWS: { as: Exception; words: string; said: (rod: number) => string }[] = [
  { as: 'out', words: 'all but', said: (rod) => `Rod ${rod} not yet` },
  { as: 'more', words: 'a touch more at', said: (rod) => `Rod ${rod} a touch more` },
  { as: 'there', words: 'was there already', said: (rod) => `Rod ${rod} was there already` },
]

/** A pass is confirmed at once; a rod that went otherwise takes one tap in the row that says how. */
export function Differently({ group, exceptions }: Props) {
  const rods = [...group].sort((a, b) => a - b)
  return (
    <Rows role="group" aria-label="Rods that went otherwise" data-few={group.length === 2 || undefined}>
      {ROWS.map(({ as, words, said }) => (
        <div key={as}>
          <span>{words}</span>
          {rods.map((rod) => (
            <One
              key={rod}
              aria-label={said(rod)}
              isSelected={exceptions.of.get(rod) === as}
              onChange={() => exceptions.toggle(rod, as)}
            >
              {rod}
            </One>
          ))}
        </div>
      ))}
    </Rows>
  )
}

const Rows = styled.div`
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 0;
    padding-bottom: 3px;
  }
  span {
    flex: 1 1 100%;
    font-size: 13.5px;
    line-height: 1.3;
    color: var(--soft);
  }
  &[data-few] span {
    flex: 0 0 132px;
    align-self: center;
  }
`
const One = styled(ToggleButton)`
  flex: 1 0 48px;
  max-width: 64px;
  min-height: 48px;
  margin-right: -1.5px;
  border: 1.5px solid var(--rule);
  border-radius: 2px;
  background: none;
  color: inherit;
  font: 600 18px var(--slab);
  cursor: pointer;
  &[data-hovered] {
    background: var(--lifted);
  }
  &[data-selected] {
    border-color: var(--ink);
    background: var(--ink);
    color: var(--on-ink);
  }
`
