import styled from 'styled-components'

/** Not seen, but read out by a screen reader. */
export const ForReaders = styled.span`
  position: absolute;
  clip-path: inset(50%);
  width: 1px;
  height: 1px;
  overflow: hidden;
  white-space: nowrap;
`
