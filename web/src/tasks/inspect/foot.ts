import styled from 'styled-components'

/** What is done next, at the right; the quiet act at the left. */
export const Foot = styled.footer`
  position: sticky;
  bottom: var(--above-rail);
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 12px;
  padding: 12px 28px;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  > button:first-child:not(:last-child) {
    margin-right: auto;
  }
  > button:last-child {
    min-width: 300px;
  }
  @media (max-width: 700px) {
    flex-wrap: wrap;
    padding: 8px 16px;
    gap: 8px;
    > button {
      min-height: 60px;
    }
    > button:last-child {
      flex: 1 0 100%;
      min-width: 0;
    }
  }
`
