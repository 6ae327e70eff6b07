import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { mayChange, useSession } from '../../api/session'
import { Main, Plain } from '../../ui/Button'
import { Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { Columns } from './Columns'
import { nextColumns, type Chosen } from './chosen'

type Seen = Schemas['DrumsSeen']

/** A file and which column says what, as the server takes them. */
const sending = (file: File, chosen: Chosen | null) => {
  const form = new FormData()
  form.append('sheet', file)
  if (chosen) form.append('columns', JSON.stringify(chosen))
  return { body: form as never, bodySerializer: (body: unknown) => body as FormData }
}

const told = (seen: Seen): string =>
  [
    `${seen.new} new`,
    `${seen.changed} brought up to date`,
    `${seen.same} as they are`,
    `${seen.bad} cannot be taken`,
  ].join(', ')

/** Existing drums in: a list kept elsewhere, its columns recognised or chosen, looked at first. */
export function BringPage() {
  const may = mayChange(useSession().data)
  const navigate = useNavigate()
  const queries = useQueryClient()
  const choose = useRef<HTMLInputElement>(null)
  const [file, setFile] = useState<File | null>(null)
  const [chosen, setChosen] = useState<Chosen | null>(null)
  const look = useMutation({
    mutationFn: (asked: { sheet: File; columns: Chosen | null }) =>
      unwrap(api.POST('/api/register/sheet/look', sending(asked.sheet, asked.columns))),
  })
  const take = useMutation({
    mutationFn: (sheet: File) => unwrap(api.POST('/api/register/sheet', sending(sheet, chosen))),
    onSuccess: () => {
      for (const key of ['drums', 'drum', 'sheet', 'choices', 'names', 'today'])
        void queries.invalidateQueries({ queryKey: [key] })
    },
  })
  const seen = take.data ?? look.data
  const error = take.error ?? look.error
  const again = (columns: Chosen | null, sheet = file) => {
    take.reset()
    setChosen(columns)
    if (sheet) look.mutate({ sheet, columns })
  }
  return (
    <Page>
      <Head>
        <h1>Bring drums in</h1>
        <Soft>From a list kept elsewhere: CSV or a workbook. The same list twice changes nothing.</Soft>
        <Link to="/drums" data-end>
          <u>Drums</u>
        </Link>
      </Head>
      <Both>
        <section>
          <a href="/api/register/sheet.csv" download>
            <u>Save all drums as CSV</u>
          </a>
          {may ? (
            <>
              <p>
                A row for each drum. Tag, name, kind, size and rods are needed for new ones; a drum that is
                there already is recognised by its tag. Sizes are read as 14 x 5 1/2, 13 in or 330 mm.
              </p>
              <input
                ref={choose}
                type="file"
                accept=".csv,.xlsx,text/csv,text/plain"
                aria-label="A list to bring in"
                hidden
                onChange={(event) => {
                  const next = event.target.files?.[0] ?? null
                  event.target.value = ''
                  setFile(next)
                  again(null, next)
                }}
              />
              <Plain isDisabled={look.isPending || take.isPending} onPress={() => choose.current?.click()}>
                {look.isPending ? 'Reading…' : 'Choose a file'}
              </Plain>
            </>
          ) : null}
          {seen && !seen.taken ? (
            <Columns
              seen={seen}
              onChange={(column, field) => again(nextColumns(seen.columns, column, field))}
            />
          ) : null}
        </section>
        <section aria-label="What it comes to">
          {error ? <Problem>{error.message}</Problem> : null}
          {seen ? (
            <>
              <h2 role="status">
                {file?.name}: {seen.taken ? 'taken' : 'nothing changed yet'}
              </h2>
              {seen.lacking.length ? (
                <p>
                  No column says <b>{seen.lacking.join(', ')}</b>. Choose which one does.
                </p>
              ) : (
                <p>{told(seen)}.</p>
              )}
              {!seen.taken && file && !seen.lacking.length ? (
                <Main
                  isDisabled={!(seen.new + seen.changed) || take.isPending || look.isPending}
                  onPress={() => take.mutate(file)}
                >
                  {take.isPending
                    ? 'Taking…'
                    : `Take ${seen.new + seen.changed} ${seen.new + seen.changed === 1 ? 'drum' : 'drums'}`}
                </Main>
              ) : null}
              {seen.taken ? <Main onPress={() => void navigate('/drums')}>To the drums</Main> : null}
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
              {seen.shown.length ? (
                <ul>
                  {seen.shown.map((words) => (
                    <li key={words}>{words}</li>
                  ))}
                </ul>
              ) : null}
            </>
          ) : (
            <Soft>A file is looked at first; nothing changes until you say so.</Soft>
          )}
        </section>
      </Both>
    </Page>
  )
}

const Both = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: 460px minmax(0, 1fr);
  > section {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 12px;
    padding: 18px 28px;
    font-size: 15.5px;
    min-width: 0;
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
