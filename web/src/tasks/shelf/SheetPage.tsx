import { useMutation } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { mayChange, useSession } from '../../api/session'
import { Main, Plain } from '../../ui/Button'
import { Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { useStockChanged } from './useShelf'

type Seen = Schemas['SheetSeen']

/** A file as the server takes it. */
const sending = (file: File) => {
  const form = new FormData()
  form.append('sheet', file)
  return { body: form as never, bodySerializer: (body: unknown) => body as FormData }
}

const told = (seen: Seen): string =>
  [
    `${seen.good} good`,
    `${seen.new} new`,
    `${seen.changed} change a count`,
    `${seen.same} as they are`,
    `${seen.bad} cannot be taken`,
  ].join(', ')

/** The whole shelf out as a sheet, and a sheet in: looked at first, good rows taken, each bad one told. */
export function SheetPage() {
  const may = mayChange(useSession().data)
  const choose = useRef<HTMLInputElement>(null)
  const [file, setFile] = useState<File | null>(null)
  const changed = useStockChanged()
  const look = useMutation({
    mutationFn: (sheet: File) => unwrap(api.POST('/api/shelf/sheet/look', sending(sheet))),
  })
  const take = useMutation({
    mutationFn: (sheet: File) => unwrap(api.POST('/api/shelf/sheet', sending(sheet))),
    onSuccess: changed,
  })
  const seen = take.data ?? look.data
  const error = take.error ?? look.error
  return (
    <Page>
      <Head>
        <h1>The shelf as a sheet</h1>
        <Link to="/shelf" data-end>
          <u>Shelf</u>
        </Link>
      </Head>
      <Columns>
        <section>
          <p>
            One row for each line, place and batch, as CSV or a workbook. No cell of it is run by a
            spreadsheet.
          </p>
          <a href="/api/shelf/sheet.csv" download>
            <u>Save the shelf as CSV</u>
          </a>
          {may ? (
            <>
              <h2>Bring one in</h2>
              <p>
                Columns <Num>sort, line, count</Num> are needed;{' '}
                <Num>size, place, batch, minimum, used, note</Num> are taken too. A head nobody entered yet
                says <Num>plies, mil, finish</Num>. Rows are recognised by line and size, so the same file
                twice changes nothing.
              </p>
              <input
                ref={choose}
                type="file"
                accept=".csv,.xlsx,text/csv,text/plain"
                aria-label="A sheet to bring in"
                hidden
                onChange={(event) => {
                  const next = event.target.files?.[0] ?? null
                  event.target.value = ''
                  take.reset()
                  setFile(next)
                  if (next) look.mutate(next)
                }}
              />
              <Plain isDisabled={look.isPending || take.isPending} onPress={() => choose.current?.click()}>
                {look.isPending ? 'Reading…' : 'Choose a file'}
              </Plain>
            </>
          ) : null}
        </section>
        <section aria-label="What it comes to">
          {error ? <Problem>{error.message}</Problem> : null}
          {seen ? (
            <>
              <h2 role="status">
                {file?.name}: {seen.taken ? 'taken' : 'nothing changed yet'}
              </h2>
              <p>{told(seen)}.</p>
              {seen.shown.length ? (
                <ul>
                  {seen.shown.map((words) => (
                    <li key={words}>{words}</li>
                  ))}
                </ul>
              ) : null}
              {seen.problems.length ? (
                <>
                  <h3>Rows that cannot be taken</h3>
                  <ul>
                    {seen.problems.map((each) => (
                      <li key={each.line}>
                        <Num>row {each.line}</Num> {each.because} <Soft>{each.shown}</Soft>
                      </li>
                    ))}
                  </ul>
                </>
              ) : null}
              {!seen.taken && file ? (
                <Main isDisabled={!seen.good || take.isPending} onPress={() => take.mutate(file)}>
                  {take.isPending ? 'Taking…' : `Take ${seen.good} ${seen.good === 1 ? 'row' : 'rows'}`}
                </Main>
              ) : null}
            </>
          ) : (
            <Soft>A file is looked at first; nothing changes until you say so.</Soft>
          )}
        </section>
      </Columns>
    </Page>
  )
}

const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: 400px minmax(0, 1fr);
  > section {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 12px;
    padding: 18px 28px;
    font-size: 15.5px;
  }
  > section:first-child {
    border-right: 1px solid var(--rule);
  }
  h2 {
    font-size: 20px;
  }
  h3 {
    font-size: 17px;
  }
  ul {
    align-self: stretch;
  }
  li {
    padding: 6px 0;
    border-top: 1px solid var(--rule);
  }
  a {
    min-height: 44px;
    display: flex;
    align-items: center;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    > section {
      padding: 14px 16px;
    }
    > section:first-child {
      border-right: 0;
    }
  }
`
