import styled from 'styled-components'

export const Rail = styled.nav`
  position: sticky;
  top: 0;
  height: 100dvh;
  display: flex;
  flex-direction: column;
  align-items: stretch;
  gap: 2px;
  padding: 18px 0 12px;
  border-right: 1px solid var(--rule);
  a {
    position: relative;
    display: flex;
    flex-direction: column;
    align-items: center;
    justify-content: center;
    min-height: 56px;
    font-size: 15px;
    color: var(--soft);
  }
  a:first-child {
    margin-bottom: 8px;
  }
  a b {
    font: 650 13px var(--mono);
    color: var(--red);
  }
  a.active:not(:first-child) {
    color: var(--ink);
    font-weight: 650;
  }
  a.active:not(:first-child)::before {
    content: '';
    position: absolute;
    left: 0;
    top: 6px;
    bottom: 6px;
    width: 3.5px;
    background: var(--ink);
  }
  @media (max-height: 680px) {
    padding: 6px 0;
    gap: 0;
    overflow-y: auto; /* whoever is in stays within reach on a short window */
    a {
      flex: none;
      min-height: 44px;
    }
    > button {
      flex: none;
    }
  }
  @media (max-width: 700px) {
    overflow: visible;
    order: 2;
    position: sticky;
    top: auto;
    bottom: 0;
    z-index: 3;
    height: auto;
    flex-direction: row;
    padding: 0 6px;
    background: var(--ground);
    border-right: 0;
    border-top: 1px solid var(--rule);
    a {
      flex: 1 0 auto;
      flex-direction: row;
      gap: 4px;
      padding: 0 3px;
      font-size: 14px;
    }
    a:first-child,
    a[data-more] {
      margin: 0;
      display: none;
    }
    a {
      min-width: 44px;
    }
    a.active:not(:first-child)::before {
      inset: 0 20% auto;
      width: auto;
      height: 3.5px;
    }
  }
`
