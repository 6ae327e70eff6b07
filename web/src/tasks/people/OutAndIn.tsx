import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'

/** How many of what came in, the most telling first. */
function inWords(rows: Record<string, number>): string {
  const said = [
    ['drums', 'drums'],
    ['jobs', 'jobs'],
    ['history', 'entries of their history'],
    ['stock', 'lines of the Shelf'],
    ['photos', 'photos'],
  ].flatMap(([table = '', words = '']) => (rows[table] ? [`${rows[table]} ${words}`] : []))
  return said.length ? said.join(', ') : 'nothing but its ways'
}

/** The whole record out, as one file or as tables; and in again, into a workshop that holds none yet. */
export function OutAndIn({ demo }: { demo: boolean }) {
  const file = useRef<HTMLInputElement>(null)
  const queries = useQueryClient()
  const bring = useMutation({
    mutationFn: (archive: File) => {
      const form = new FormData()
      form.append('archive', archive)
      // The form is typed by its fields in the schema; what is sent is the form itself.
      return unwrap(
        api.POST('/api/archive', { body: form as never, bodySerializer: (body) => body as never }),
      )
    },
    onSuccess: () => queries.invalidateQueries(),
  })
  return (
    <Section aria-label="Everything out and in">
      <h2>Everything out and in</h2>
      <p>
        <a href="/api/archive/archive.json" download>
          Everything as one file
        </a>
        <Soft>photos and kept sounds in it; another workshop takes it in whole</Soft>
      </p>
      <p>
        <a href="/api/archive/tables.zip" download>
          Everything as tables
        </a>
        <Soft>a CSV a table, to read elsewhere</Soft>
      </p>
      {demo ? null : (
        <>
          <div>
            <Plain isDisabled={bring.isPending} onPress={() => file.current?.click()}>
              {bring.isPending ? 'Bringing it in…' : 'Bring such a file in'}
            </Plain>
            <Soft>all of it or nothing, and only while this workshop has no records yet</Soft>
          </div>
          <input
            ref={file}
            type="file"
            accept=".json,application/json"
            hidden
            aria-label="Archive"
            onChange={(event) => {
              const [chosen] = event.target.files ?? []
              if (chosen) bring.mutate(chosen)
              event.target.value = ''
            }}
          />
          {bring.data ? <p role="status">It is in: {inWords(bring.data.rows)}.</p> : null}
          {bring.error ? <Problem>{bring.error.message}</Problem> : null}
        </>
      )}
    </Section>
  )
}

const Section = styled.section`
  padding-bottom: 16px;
  > p,
  > div {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 16px;
    min-height: 48px;
    padding: 8px 0;
  }
  a {
    font-weight: 550;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
`
