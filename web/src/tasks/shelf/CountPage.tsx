import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { shortDate } from '../../domain/dates'
import { Plain } from '../../ui/Button'
import { Empty, Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { Scanner } from '../../ui/scan/Scanner'
import { CountPlace } from './CountPlace'
import { WhichLine } from './WhichLine'

type Place = Schemas['PlaceOut']

const lineOf = (place: Place, line: number | null | undefined) =>
  place.lines.some((each) => each.line === line)

/** A stock-taking: place by place, a label opens its place or its line, and what is counted is the count. */
export function CountPage() {
  const [query, setQuery] = useSearchParams()
  const [scanning, setScanning] = useState(false)
  const [unknown, setUnknown] = useState('')
  const [pointed, setPointed] = useState<{ line: number; n: number } | null>(null)
  const places = useQuery({
    queryKey: keys.stockPlaces,
    queryFn: () => unwrap(api.GET('/api/shelf/places')),
    staleTime: 0,
  })
  const at = query.get('place')
  const place = places.data?.find((each) => each.place === at) ?? null
  const open = (next: string | null) => setQuery(next === null ? {} : { place: next })
  const point = (line: number) => {
    const lies = places.data?.find((each) =>
      place && lineOf(place, line) ? each === place : lineOf(each, line),
    )
    if (lies) open(lies.place)
    setPointed((was) => ({ line, n: (was?.n ?? 0) + 1 }))
  }
  const find = useMutation({
    mutationFn: (code: string) => unwrap(api.GET('/api/shelf/codes/{code}', { params: { path: { code } } })),
    onSuccess: (found, code) => {
      setUnknown('')
      if (found.line !== null && found.line !== undefined) point(found.line)
      else if (found.place) open(found.place)
      else setUnknown(code)
    },
  })
  return (
    <Page>
      <Head>
        <h1>{place ? `Count ${place.place || 'what has no place'}` : 'Count a shelf'}</h1>
        <Soft>
          {place
            ? 'What you enter is the count. What you do not look at stays as it is.'
            : 'Longest not counted first.'}
        </Soft>
        <Link to="/shelf" data-end>
          <u>Shelf</u>
        </Link>
      </Head>
      <Scan>
        {scanning ? <Scanner onCode={(code) => find.mutate(code)} /> : null}
        <Plain aria-pressed={scanning} onPress={() => setScanning(!scanning)}>
          {scanning ? 'Stop the camera' : 'Scan labels'}
        </Plain>
        {find.error ? <Problem>{find.error.message}</Problem> : null}
        {unknown ? (
          <WhichLine
            code={unknown}
            onKnown={(line) => {
              setUnknown('')
              point(line)
            }}
            onClose={() => setUnknown('')}
          />
        ) : null}
      </Scan>
      {places.error ? <Problem>{places.error.message}</Problem> : null}
      {place ? (
        <CountPlace
          key={place.place}
          place={place}
          pointed={pointed}
          onDone={() => void places.refetch()}
          onClose={() => open(null)}
        />
      ) : null}
      {!place && places.data ? (
        <Places>
          {places.data.map((each) => (
            <li key={each.place}>
              <button type="button" onClick={() => open(each.place)}>
                <Num>{each.place || 'no place'}</Num>
                <span>
                  {each.lines.length} {each.lines.length === 1 ? 'line' : 'lines'}
                  <Soft>
                    {' '}
                    {each.lines
                      .slice(0, 3)
                      .map((line) => line.called)
                      .join('; ')}
                    {each.lines.length > 3 ? ' …' : ''}
                  </Soft>
                </span>
                <Soft>
                  {each.counted_at
                    ? `counted ${shortDate(new Date(each.counted_at))}, ${each.counted_by}`
                    : 'never counted'}
                </Soft>
              </button>
            </li>
          ))}
        </Places>
      ) : null}
      {places.data?.length === 0 ? <Empty>Nothing lies on the shelf yet; begin a line first.</Empty> : null}
    </Page>
  )
}

const Scan = styled.div`
  display: grid;
  gap: 10px;
  justify-items: start;
  padding: 12px 28px;
  > div:first-child {
    width: min(520px, 100%);
  }
  @media (max-width: 700px) {
    padding: 10px 16px;
  }
`
const Places = styled.ul`
  border-top: 1px solid var(--ink);
  li {
    border-bottom: 1px solid var(--rule);
  }
  button {
    display: grid;
    grid-template-columns: 72px minmax(0, 1fr) auto;
    gap: 14px;
    align-items: center;
    width: 100%;
    min-height: 58px;
    padding: 6px 28px;
    border: 0;
    background: transparent;
    text-align: left;
    cursor: pointer;
    font-size: 15px;
  }
  button:hover {
    background: var(--lifted);
  }
  @media (max-width: 700px) {
    button {
      grid-template-columns: 52px minmax(0, 1fr);
      padding: 8px 16px;
    }
    button > :last-child {
      grid-column: 2;
      font-size: 13.5px;
    }
  }
`
