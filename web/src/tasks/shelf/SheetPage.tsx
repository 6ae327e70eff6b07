import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { mayChange, useSession } from '../../api/session'
import { counted } from '../../domain/counted'
import { ListIn } from '../../ui/ListIn'
import { useListIn } from '../../api/listIn'
import { Head, Num, Page } from '../../ui/Page'
import { useStockChanged } from './useShelf'

const told = (seen: Schemas['ListSeen']) =>
  `${counted(seen.good)} good, ${counted(seen.new)} new, ${counted(seen.changed)} change a count, ${counted(seen.same)} as they are, ${counted(seen.bad)} cannot be taken.`

const take = (seen: Schemas['ListSeen']) => ({
  count: seen.good,
  words: `Take ${counted(seen.good)} ${seen.good === 1 ? 'row' : 'rows'}`,
})

/** The whole shelf out as a sheet, and a sheet in. */
export function SheetPage() {
  const may = mayChange(useSession().data)
  const list = useListIn('shelf', useStockChanged())
  return (
    <Page>
      <Head>
        <h1>The shelf as a sheet</h1>
        <Link to="/shelf" data-end>
          <u>Shelf</u>
        </Link>
      </Head>
      <ListIn
        list={list}
        save={{ href: '/api/shelf/sheet.csv', words: 'Save the shelf as CSV' }}
        how={
          <>
            <p>
              One row for each line, place and batch, as CSV or a workbook. No cell of it is run by a
              spreadsheet.
            </p>
            {may ? (
              <>
                <h2>Bring one in</h2>
                <p>
                  Columns <Num>sort, line, count</Num> are needed;{' '}
                  <Num>size, place, batch, minimum, used, note</Num> are taken too. A head nobody entered yet
                  says <Num>plies, mil, finish</Num>. Rows are recognised by line and size, so the same file
                  twice changes nothing.
                </p>
              </>
            ) : null}
          </>
        }
        may={may}
        choosing="A sheet to bring in"
        onChoose={(next) => {
          list.look(next)
        }}
        told={told}
        take={take}
      />
    </Page>
  )
}
