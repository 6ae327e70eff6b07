import styled from 'styled-components'

/** A view's frame: a ruled heading line, then what the view answers. */
export const Page = styled.main`
  display: flex;
  flex-direction: column;
  min-height: 100dvh;
  min-width: 0;
`

export const Head = styled.header`
  display: flex;
  align-items: baseline;
  gap: 8px 22px;
  flex-wrap: wrap;
  padding: 22px 28px 17px;
  border-bottom: 1px solid var(--rule);
  h1 {
    font-size: 27px;
  }
  > [data-end] {
    margin-left: auto;
  }
  @media (max-width: 700px) {
    padding: 14px 16px 12px;
    h1 {
      font-size: 23px;
    }
  }
`

export const Soft = styled.span`
  color: var(--soft);
`

export const Num = styled.span`
  font-family: var(--mono);
  font-variant-numeric: tabular-nums;
  font-size: 0.94em;
  letter-spacing: -0.02em;
`

export const Owed = styled.strong`
  color: var(--red);
  font-weight: 650;
`

/** What went wrong, what was kept, what to do. */
export const Problem = styled.p.attrs({ role: 'alert' })`
  padding: 12px 16px;
  border-left: 4px double var(--ink);
  background: var(--lifted);
  font-weight: 550;
`

export const Empty = styled.p`
  padding: 28px;
  color: var(--soft);
  max-width: 60ch;
`
