import { Popover } from 'react-aria-components'
import styled from 'styled-components'

/** A short list of places and deeds, laid over the page beside the button that opened it. */
export const MenuSheet = styled(Popover)`
  background: var(--lifted);
  border: 1.5px solid var(--ink);
  border-radius: 2px;
  min-width: 180px;
  [role='menuitem'] {
    display: flex;
    align-items: center;
    min-height: 52px;
    padding: 0 18px;
    border-top: 1px solid var(--rule);
    cursor: pointer;
    outline-offset: -3px;
    &[data-focused] {
      background: var(--faint);
    }
  }
`
