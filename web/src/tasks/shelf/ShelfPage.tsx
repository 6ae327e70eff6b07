import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { mayChange, useSession } from '../../api/session'
import { Plain, Quiet } from '../../ui/Button'
import { Empty, Head, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { Waiting } from '../../ui/Waiting'
import { JobsColumn } from './JobsColumn'
import { StockRows } from './StockRows'
import { useStock, type Row } from './useShelf'

const SORTS = [
  ['', 'All'],
  ['owed', 'Short'],
  ['head', 'Heads'],
  ['wires', 'Wires'],
  ['rod', 'Rods'],
  ['part', 'Parts'],
] as const
type SortKey = (typeof SORTS)[number][0]

const belongs = (row: Row, sort: SortKey): boolean => {
  if (!sort) return true
  if (sort === 'owed') return Boolean(row.owed)
  return sort === 'part' ? row.sort === 'part' || row.sort === 'claw' : row.sort === sort
}
const says = (row: Row, sought: string): boolean =>
  `${row.place} ${row.what} ${row.size} ${row.said}`.toLowerCase().includes(sought.trim().toLowerCase())

/** What there is to fit and what to buy; beside it whether the next jobs can start. */
export function ShelfPage() {
  const shelf = useStock()
  const navigate = useNavigate()
  const may = mayChange(useSession().data)
  const [sort, setSort] = useState<SortKey>('')
  const [sought, setSought] = useState('')
  useKeys({ c: () => void navigate('/shelf/count'), o: () => void navigate('/shelf/buying') })
  if (shelf.error) return <Problem>{shelf.error.message}</Problem>
  if (!shelf.data) return <Waiting />
  const found = shelf.data.lines.filter((row) => belongs(row, sort) && says(row, sought))
  const rows = [...found.filter((row) => row.owed), ...found.filter((row) => !row.owed)]
  return (
    <Page>
      <Top>
        <h1>Shelf</h1>
        <Soft>{shelf.data.words}; ink is free, underlined is promised, red is short</Soft>
        <span data-end>
          <Link to="/shelf/sheet">
            <u>As a sheet</u>
          </Link>
          {may ? (
            <>
              <Plain onPress={() => void navigate('/shelf/new')}>New line</Plain>
              <Plain onPress={() => void navigate('/shelf/count')}>Count a shelf</Plain>
            </>
          ) : null}
        </span>
      </Top>
      <Columns>
        <section aria-label="Lines">
          <Filter>
            <input
              type="search"
              aria-label="Find a line"
              placeholder="Find: a name, a size, a place"
              value={sought}
              onChange={(event) => setSought(event.target.value)}
            />
            <div role="group" aria-label="Sorts">
              {SORTS.map(([key, words]) => (
                <Quiet key={words} aria-pressed={sort === key} onPress={() => setSort(key)}>
                  {words}
                </Quiet>
              ))}
            </div>
          </Filter>
          {rows.length ? <StockRows rows={rows} /> : null}
          {shelf.data.lines.length === 0 ? (
            <Empty>
              Nothing is on the shelf yet. Begin a line, or bring a whole list in as a sheet; from then on
              every head fitted leaves it by itself.
            </Empty>
          ) : rows.length === 0 ? (
            <Empty>{sort === 'owed' ? 'Nothing is short.' : 'No line like that.'}</Empty>
          ) : null}
        </section>
        <JobsColumn shelf={shelf.data} mayChange={may} />
      </Columns>
    </Page>
  )
}

const Top = styled(Head)`
  > [data-end] {
    display: flex;
    align-items: center;
    gap: 14px;
    margin-block: -8px;
  }
  @media (max-width: 700px) {
    > [data-end] {
      margin: 0;
      width: 100%;
      gap: 10px;
      white-space: nowrap;
      font-size: 15px;
    }
    button {
      padding: 0 12px;
      font-size: 15.5px;
    }
  }
`
const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 348px;
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    > section:last-child {
      order: -1;
    }
  }
  @media (max-width: 700px) {
    > section:last-child {
      order: 0; /* what is looked for comes first on a phone */
    }
  }
`
const Filter = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 8px 28px;
  border-bottom: 1px solid var(--ink);
  input {
    flex: 1 1 180px;
    min-height: 44px;
    border: 0;
    border-bottom: 1.5px solid var(--rule);
    background: transparent;
    font-size: 16px;
  }
  [role='group'] {
    display: flex;
    flex-wrap: wrap;
  }
  [aria-pressed='true'] {
    font-weight: 650;
    text-decoration: underline;
    text-underline-offset: 5px;
    text-decoration-thickness: 2px;
  }
  @media (max-width: 700px) {
    padding: 8px 16px;
  }
`
