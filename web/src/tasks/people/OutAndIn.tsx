import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import styled, { keyframes } from 'styled-components'
import { many } from '../../domain/counted'
import { Plain } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'
import { bringIn, type Progress } from './bringIn'

/** How many of what came in, the most telling first. */
function inWords(rows: Record<string, number>): string {
  const said = [
    ['drums', 'drum', 'drums'],
    ['jobs', 'job', 'jobs'],
    ['history', 'entry of their history', 'entries of their history'],
    ['stock', 'line of the Shelf', 'lines of the Shelf'],
    ['photos', 'photo', 'photos'],
  ].flatMap(([table = '', one = '', more]) => (rows[table] ? [many(rows[table], one, more)] : []))
  return said.length ? said.join(', ') : 'nothing but its ways'
}

const mb = (bytes: number) => Math.max(1, Math.round(bytes / 1_000_000))

/** What is done just now, with a bar. */
function HowFar({ at, of, reading }: Progress) {
  const words = reading
    ? 'All of it is here. It is read, and every page of it opened once; a large record takes some minutes.'
    : `${mb(at)} of ${mb(of)} MB are there. If it breaks off, choose the same file again: it goes on.`
  return (
    <Far>
      <progress aria-label="Bringing it in" max={of} value={at} data-reading={reading || undefined} />
      <p role="status">{words}</p>
    </Far>
  )
}

/** The whole record out, as one file or as tables; and in again, into a workshop that holds none yet. */
export function OutAndIn({ demo }: { demo: boolean }) {
  const file = useRef<HTMLInputElement>(null)
  const queries = useQueryClient()
  const [far, setFar] = useState<Progress | null>(null)
  const bring = useMutation({
    mutationFn: (archive: File) => bringIn(archive, setFar),
    onMutate: () => setFar(null),
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
            <Soft>
              up to two gigabytes; all of it or nothing, and only while this workshop has no records yet
            </Soft>
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
          {bring.isPending && far ? <HowFar {...far} /> : null}
          {bring.data ? <p role="status">It is in: {inWords(bring.data.rows)}.</p> : null}
          {bring.error ? <Problem>{bring.error.message}</Problem> : null}
        </>
      )}
    </Section>
  )
}

const Section = styled.section`
  padding-bottom: 16px;
  > p:not([role='alert']),
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

const breathing = keyframes`
  from { opacity: 1; }
  to { opacity: 0.35; }
`

const Far = styled.section`
  progress {
    width: min(360px, 100%);
    height: 8px;
    appearance: none;
    border: 0;
    background: var(--rule);
    accent-color: currentColor;
  }
  progress::-webkit-progress-bar {
    background: var(--rule);
  }
  progress::-webkit-progress-value {
    background: currentColor;
  }
  progress::-moz-progress-bar {
    background: currentColor;
  }
  @media (prefers-reduced-motion: no-preference) {
    progress[data-reading] {
      animation: ${breathing} 1.6s ease-in-out infinite alternate;
    }
  }
  p {
    flex-basis: 100%;
    margin: 0;
  }
`
