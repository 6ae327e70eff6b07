import { useQueryClient } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { mayChange, useSession } from '../../api/session'
import { counted } from '../../domain/counted'
import { Main } from '../../ui/Button'
import { ListIn } from '../../ui/ListIn'
import { useListIn } from '../../api/listIn'
import { Head, Page, Soft } from '../../ui/Page'
import { Columns } from './Columns'
import { nextColumns } from './chosen'

const told = (seen: Schemas['DrumsSeen']) =>
  seen.lacking.length ? (
    <>
      No column says <b>{seen.lacking.join(', ')}</b>. Choose which one does.
    </>
  ) : (
    `${counted(seen.new)} new, ${counted(seen.changed)} brought up to date, ${counted(seen.same)} as they are, ${counted(seen.bad)} cannot be taken.`
  )

const take = (seen: Schemas['DrumsSeen']) => {
  const count = seen.new + seen.changed
  return seen.lacking.length
    ? null
    : { count, words: `Take ${counted(count)} ${count === 1 ? 'drum' : 'drums'}` }
}

/** Existing drums in: a list kept elsewhere, its columns recognised or chosen, looked at first. */
export function BringPage() {
  const may = mayChange(useSession().data)
  const navigate = useNavigate()
  const queries = useQueryClient()
  const list = useListIn('drums', () => {
    for (const key of ['drums', 'drum', 'sheet', 'choices', 'names', 'today'])
      void queries.invalidateQueries({ queryKey: [key] })
  })
  const { seen, file } = list
  return (
    <Page>
      <Head>
        <h1>Bring drums in</h1>
        <Soft>From a list kept elsewhere: CSV or a workbook. The same list twice changes nothing.</Soft>
        <Link to="/drums" data-end>
          <u>Drums</u>
        </Link>
      </Head>
      <ListIn
        list={list}
        save={{ href: '/api/register/sheet.csv', words: 'Save all drums as CSV' }}
        how={
          may ? (
            <p>
              A row for each drum. Tag, name, kind, size and rods are needed for new ones; a drum that is
              there already is recognised by its tag. Sizes are read as 14 x 5 1/2, 13 in or 330 mm.
            </p>
          ) : null
        }
        may={may}
        choosing="A list to bring in"
        onChoose={(next) => {
          list.look(next)
        }}
        columns={
          seen && file && !seen.taken ? (
            <Columns
              seen={seen}
              onChange={(column, field) => {
                list.look(file, { columns: JSON.stringify(nextColumns(seen.columns, column, field)) })
              }}
            />
          ) : null
        }
        told={told}
        take={take}
        after={<Main onPress={() => void navigate('/drums')}>To the drums</Main>}
      />
    </Page>
  )
}
