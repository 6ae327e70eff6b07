import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { Head, Page, Problem, Soft } from '../../ui/Page'
import { Waiting } from '../../ui/Waiting'
import { NameRow, type Sort } from './NameRow'

const SORTS: readonly (readonly [Sort, string])[] = [
  ['place', 'Places'],
  ['owner', 'Owners'],
  ['kit', 'Kits'],
]

/** Places, owners and kits: renamed, merged, taken away where nothing bears them. */
export function NamesPage() {
  const may = mayChange(useSession().data)
  const names = useQuery({ queryKey: keys.names, queryFn: () => unwrap(api.GET('/api/register/names')) })
  if (names.error) return <Problem>{names.error.message}</Problem>
  if (!names.data) return <Waiting />
  return (
    <Page>
      <Head>
        <h1>Names</h1>
        <Soft>A name that is there already takes the drums of both.</Soft>
        <Link to="/ways" data-end>
          <u>Workshop’s ways</u>
        </Link>
      </Head>
      <Columns>
        {SORTS.map(([sort, title]) => (
          <section key={sort} aria-label={title}>
            <h2>{title}</h2>
            <ul>
              {names.data[sort].map((each) => (
                <NameRow key={each.name} sort={sort} named={each} all={names.data[sort]} mayChange={may} />
              ))}
            </ul>
            {names.data[sort].length ? null : <Soft>None yet.</Soft>}
          </section>
        ))}
      </Columns>
    </Page>
  )
}

const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(290px, 1fr));
  gap: 24px 36px;
  padding: 18px 28px 28px;
  h2 {
    font-size: 19px;
    padding-bottom: 6px;
    border-bottom: 1px solid var(--ink);
  }
  @media (max-width: 700px) {
    padding: 14px 16px;
  }
`
