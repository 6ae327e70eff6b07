import styled, { keyframes } from 'styled-components'
import { Page } from './Page'

const shown = keyframes`to { visibility: visible; }`

/** Shows what is in it only when it has stood for a moment: most answers come before. */
export const Later = styled.p.attrs({ role: 'status' })`
  visibility: hidden;
  animation: ${shown} 0s 0.9s forwards;
`

/** A view the server was asked for. Never a blank page for longer than a blink. */
export function Waiting() {
  return (
    <Page aria-busy>
      <Words>Waiting for the server.</Words>
    </Page>
  )
}

const Words = styled(Later)`
  padding: 28px;
  max-width: 60ch;
  color: var(--soft);
`
