import { useEffect, useRef, type KeyboardEvent, type RefObject } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Num } from '../../ui/Page'

interface Props {
  drums: Schemas['DrumRow'][]
  searchRef: RefObject<HTMLInputElement | null>
  onMore: (() => void) | null
}

function walk(list: HTMLElement | null, step: number): void {
  const rows = [...(list?.querySelectorAll<HTMLAnchorElement>('tbody a') ?? [])]
  const at = rows.findIndex((row) => row === document.activeElement)
  rows[Math.min(rows.length - 1, Math.max(0, at + step))]?.focus()
}

/** The ledger of drums. Up and down walk it, Enter opens, typing goes back to the search. */
export function RegisterTable({ drums, searchRef, onMore }: Props) {
  const table = useRef<HTMLTableElement>(null)
  const foot = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (!onMore || !foot.current) return
    const seen = new IntersectionObserver(
      (entries) => entries.some((entry) => entry.isIntersecting) && onMore(),
      { rootMargin: '600px' },
    )
    seen.observe(foot.current)
    return () => seen.disconnect()
  }, [onMore])
  useEffect(() => {
    const field = searchRef.current
    const down = (event: globalThis.KeyboardEvent) => {
      if (event.key !== 'ArrowDown' && event.key !== 'Enter') return
      event.preventDefault()
      walk(table.current, 1)
    }
    field?.addEventListener('keydown', down)
    return () => field?.removeEventListener('keydown', down)
  }, [searchRef])
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault()
      walk(table.current, event.key === 'ArrowDown' ? 1 : -1)
    }
  }
  return (
    <>
      <Table ref={table} onKeyDown={onKey}>
        <thead>
          <tr>
            <th>Tag</th>
            <th>Name</th>
            <th>Kind</th>
            <th>Size</th>
            <th>Rods</th>
            <th>Place</th>
            <th>Owner</th>
            <th>Kits</th>
            <th>
              <span>Standing</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {drums.map((drum) => (
            <tr key={drum.tag}>
              <td>
                <Num>{drum.tag}</Num>
              </td>
              <th scope="row">
                <Link to={`/drums/${drum.tag}`}>{drum.name}</Link>
              </th>
              <td>{drum.kind_words}</td>
              <td>
                <Num>{drum.size}</Num>
              </td>
              <td>
                <Num>{drum.rods}</Num>
              </td>
              <td>{drum.place}</td>
              <td>{drum.owner}</td>
              <td>{drum.kits.join(', ')}</td>
              <td data-owed={drum.owed || undefined}>{drum.standing}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <div ref={foot} />
    </>
  )
}

const Table = styled.table`
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
