import styled from 'styled-components'

export const Heads = styled.div`
  display: flex;
  flex-direction: column;
  gap: 22px;
  section {
    display: flex;
    flex-direction: column;
    gap: 18px;
  }
  h2 {
    font-size: 19px;
    text-transform: capitalize;
  }
  &[data-many] {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(340px, 1fr));
    gap: 22px 40px;
  }
`
export const Body = styled.div`
  label,
  input,
  select {
    scroll-margin-bottom: 120px; /* the foot stays in sight and must not cover what has the focus */
  }
  flex: 1;
  padding: 18px 28px;
  display: flex;
  flex-direction: column;
  gap: 22px;
  max-width: 1080px;
  > div:nth-last-child(n) {
    max-width: 100%;
  }
  @media (max-width: 700px) {
    padding: 14px 16px;
  }
`
export const Foot = styled.footer`
  position: sticky;
  bottom: var(--above-rail);
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 12px 28px;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  > :first-child {
    min-width: 380px;
  }
  @media (max-width: 700px) {
    padding: 10px 16px;
    > :first-child {
      min-width: 0;
      flex: 1;
    }
  }
`
