import styled from 'styled-components'

export const Ledger = styled.table`
  width: 100%;
  border-collapse: collapse;
  th,
  td {
    text-align: left;
    padding: 9px 10px;
    border-bottom: 1px solid var(--rule);
    font-weight: 400;
    font-size: 15px;
    white-space: nowrap;
  }
  th:first-child,
  td:first-child {
    padding-left: 28px;
  }
  /* Kind, place, owner and standing may be long: they wrap before the page grows wider than its window. */
  td:nth-child(3),
  td:nth-child(n + 6) {
    white-space: normal;
  }
  thead th {
    font-size: 13px;
    color: var(--soft);
    padding-top: 12px;
    border-bottom-color: var(--rule);
  }
  tbody th {
    font: 600 17px var(--slab);
  }
  tbody tr {
    position: relative;
  }
  tbody tr:hover,
  tbody tr:focus-within {
    background: var(--lifted);
  }
  tbody a::after {
    content: '';
    position: absolute;
    inset: 0;
  }
  tbody a:focus-visible {
    outline: none;
  }
  tbody a:focus-visible::after {
    outline: 3px solid var(--ink);
    outline-offset: -3px;
  }
  td[data-owed] {
    color: var(--red);
    font-weight: 650;
  }
  @media (max-width: 1000px) {
    th,
    td {
      padding: 9px 7px;
    }
    th:nth-child(3),
    td:nth-child(3),
    td:last-child {
      white-space: normal;
    }
    th:nth-child(5),
    td:nth-child(5),
    th:nth-child(7),
    td:nth-child(7),
    th:nth-child(8),
    td:nth-child(8) {
      display: none;
    }
  }
  @media (max-width: 700px) {
    thead {
      display: none;
    }
    tbody tr {
      display: grid;
      grid-template-columns: auto 1fr auto;
      gap: 0 10px;
      padding: 8px 16px;
      border-bottom: 1px solid var(--rule);
    }
    th,
    td,
    td:first-child {
      padding: 0;
      border: 0;
    }
    td:nth-child(5),
    td:nth-child(6) {
      display: none;
    }
    tbody th {
      order: -1;
      grid-column: 1 / 3;
    }
    td:last-child {
      order: -1;
    }
  }
`
