import { useEffect, useRef, type RefObject } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { Num } from '../../ui/Page'
import { useWalk } from './useWalk'
import { Ledger } from './Ledger'

interface Props {
  drums: Schemas['DrumRow'][]
  searchRef: RefObject<HTMLInputElement | null>
  onMore: (() => void) | null
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
  const onKey = useWalk(table, searchRef)
  return (
    <>
      <Ledger ref={table} onKeyDown={onKey}>
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
      </Ledger>
      <div ref={foot} />
    </>
  )
}
