import { useInfiniteQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { Plain } from '../../ui/Button'
import { Empty, Head, Page, Problem, Soft } from '../../ui/Page'
import { Select } from '../../ui/Select'
import { ChangeRow } from './ChangeRow'
import { byDay } from './days'

/** Who did what: every change to records, people and settings, the newest first. */
export function ChangesPage() {
  const [what, setWhat] = useState('')
  const [by, setBy] = useState('')
  const [text, setText] = useState('')
  const asked = { what, by, text: useDeferredValue(text.trim()) }
  const found = useInfiniteQuery({
    queryKey: keys.changes(asked),
    initialPageParam: null as number | null,
    queryFn: ({ pageParam }) =>
      unwrap(
        api.GET('/api/changes', {
          params: { query: { ...asked, ...(pageParam === null ? {} : { before: pageParam }) } },
        }),
      ),
    getNextPageParam: (last) => (last.more ? (last.changes.at(-1)?.id ?? null) : null),
    staleTime: 0,
  })
  if (found.error) return <Problem>{found.error.message}</Problem>
  const pages = found.data?.pages ?? []
  const all = pages.flatMap((page) => page.changes)
  const every = (name: string, list: string[] | undefined) =>
    [['', name], ...(list ?? []).map((each) => [each, each] as const)] as const
  return (
    <Page>
      <Head>
        <h1>Changes</h1>
        <Soft>Records, people and settings: who changed what, and what stood there.</Soft>
        <Away data-end href="/api/changes/trail.csv" download>
          Save as CSV
        </Away>
      </Head>
      <Narrow>
        <Select
          label="Who"
          value={by}
          onChange={setBy}
          options={every('everybody', pages[0]?.people) as never}
        />
        <Select
          label="What"
          value={what}
          onChange={setWhat}
          options={every('everything', pages[0]?.whats) as never}
        />
        <label>
          <span>Which</span>
          <input
            type="search"
            placeholder="a tag or a name"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
      </Narrow>
      {found.data && !all.length ? <Empty>Nothing of the kind was changed yet.</Empty> : null}
      {byDay(all).map(([day, changes]) => (
        <Day key={day} aria-label={day}>
          <h2>{day}</h2>
          <ul>
            {changes.map((each) => (
              <ChangeRow key={each.id} change={each} />
            ))}
          </ul>
        </Day>
      ))}
      {found.hasNextPage ? (
        <More>
          <Plain isDisabled={found.isFetchingNextPage} onPress={() => void found.fetchNextPage()}>
            Older ones
          </Plain>
        </More>
      ) : null}
    </Page>
  )
}

const Away = styled.a`
  text-decoration: underline;
  text-underline-offset: 3px;
`
const Narrow = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 14px 22px;
  padding: 14px 28px;
  border-bottom: 1px solid var(--rule);
  label span {
    display: block;
    font-size: 13.5px;
    color: var(--soft);
  }
  input {
    width: 100%;
    min-height: 44px;
    padding: 6px 2px;
    border: 0;
    border-bottom: 1.5px solid var(--ink);
    background: transparent;
    font-size: 17px;
  }
  @media (max-width: 700px) {
    padding: 12px 16px;
    grid-template-columns: 1fr 1fr;
  }
`
const Day = styled.section`
  padding: 14px 28px 4px;
  max-width: 1100px;
  h2 {
    font-size: 18px;
    padding-bottom: 6px;
    border-bottom: 1px solid var(--ink);
  }
  @media (max-width: 700px) {
    padding: 12px 16px 4px;
  }
`
const More = styled.div`
  padding: 18px 28px;
`
