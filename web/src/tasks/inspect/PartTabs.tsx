import styled from 'styled-components'
import type { Look, Part, Tick } from './log/fold'
import { PART_WORDS, partOf } from './words'

interface Props {
  parts: readonly Part[]
  part: Part
  look: Look
  tickOf: (finding: string) => Tick | undefined
  onOpen: (part: Part) => void
}

/** Where one looks, each with how much was seen there. */
export function PartTabs({ parts, part, look, tickOf, onOpen }: Props) {
  return (
    <Tabs role="tablist" aria-label="Part of the drum">
      {parts.map((each) => {
        const count = look.marks.filter((mark) => partOf(mark, tickOf(mark.finding)) === each).length
        return (
          <button
            key={each}
            type="button"
            role="tab"
            aria-selected={each === part}
            onClick={() => onOpen(each)}
          >
            {PART_WORDS[each]}
            {count ? <b> {count}</b> : null}
          </button>
        )
      })}
    </Tabs>
  )
}

const Tabs = styled.div`
  display: flex;
  gap: 4px 20px;
  overflow-x: auto;
  scrollbar-width: none;
  button {
    flex: none;
    min-height: 46px;
    padding: 0 2px;
    border: 0;
    border-bottom: 4px solid transparent;
    background: transparent;
    color: var(--soft);
    font-size: 16.5px;
    cursor: pointer;
  }
  button[aria-selected='true'] {
    border-color: var(--ink);
    color: var(--ink);
    font-weight: 650;
  }
  b {
    font: 600 13px var(--mono);
  }
  @media (max-width: 420px) {
    gap: 4px 14px;
    button {
      font-size: 15.5px;
    }
  }
`
