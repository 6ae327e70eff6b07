import styled from 'styled-components'

/** What is open on a drum: each line with what to do about it at its end. */
export const OpenList = styled.section`
  padding-top: 14px;
  h2 {
    font-size: 18px;
  }
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 10px;
    padding: 8px 0;
    border-top: 1px solid var(--rule);
    font-size: 15px;
  }
  li > button {
    white-space: nowrap;
  }
`
