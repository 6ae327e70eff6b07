import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useDeferredValue, useMemo, useRef, useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { Plain } from '../../ui/Button'
import { Empty, Head, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { FilterBar, NO_FILTER, type Narrowed } from './FilterBar'
import { RegisterTable } from './RegisterTable'

const PAGE = 50

function useRegister(filter: Narrowed) {
  return useInfiniteQuery({
    queryKey: keys.drums(filter),
    queryFn: ({ pageParam }) =>
      unwrap(api.GET('/api/register/drums', { params: { query: { ...filter, offset: pageParam } } })),
    initialPageParam: 0,
    getNextPageParam: (last: Schemas['DrumPage'], pages) =>
      pages.length * PAGE < last.total ? pages.length * PAGE : undefined,
    placeholderData: keepPreviousData,
  })
}

/** What the list is narrowed to stands in its address: it is there again on the way back. */
function useFilter(): [Narrowed, (filter: Narrowed) => void] {
  const [query, setQuery] = useSearchParams()
  const [filter, set] = useState<Narrowed>(() => {
    const found = Object.keys(NO_FILTER).map((name) => [name, query.get(name) ?? ''])
    return Object.fromEntries(found) as unknown as Narrowed
  })
  const narrow = (next: Narrowed) => {
    set(next)
    const said = Object.entries(next).filter(([, value]) => value)
    setQuery(Object.fromEntries(said) as Record<string, string>, { replace: true })
  }
  return [filter, narrow]
}

/** All drums of the workshop: type to narrow, arrows to walk, Enter to open. */
export function RegisterPage() {
  const session = useSession()
  const navigate = useNavigate()
  const [filter, setFilter] = useFilter()
  const asked = useDeferredValue(filter)
  const search = useRef<HTMLInputElement>(null)
  const register = useRegister(asked)
  const choices = useQuery({
    queryKey: keys.choices,
    queryFn: () => unwrap(api.GET('/api/register/choices')),
  })
  const drums = register.data?.pages.flatMap((page) => page.drums) ?? []
  const total = register.data?.pages[0]?.total ?? 0
  useKeys(useMemo(() => ({ '/': () => search.current?.focus() }), []))
  return (
    <Page>
      <Head>
        <h1>Drums</h1>
        <Soft role="status">{register.data ? `${total} ${total === 1 ? 'drum' : 'drums'}` : ''}</Soft>
        <Link to="/drums/bring" data-end>
          <u>As a list</u>
        </Link>
        {mayChange(session.data) ? <Add onPress={() => void navigate('/drums/new')}>Add a drum</Add> : null}
      </Head>
      <FilterBar filter={filter} onChange={setFilter} choices={choices.data} searchRef={search} />
      {register.error ? <Problem>{register.error.message}</Problem> : null}
      {register.data && drums.length === 0 ? (
        <Empty>No drum fits this. Take a word or a filter away, or add the drum.</Empty>
      ) : (
        <RegisterTable
          drums={drums}
          searchRef={search}
          onMore={register.hasNextPage ? () => void register.fetchNextPage() : null}
        />
      )}
    </Page>
  )
}

const Add = styled(Plain)`
  min-height: 44px;
  margin: -8px 0;
`
