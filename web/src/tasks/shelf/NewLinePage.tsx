import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { newId } from '../../domain/ids'
import { between, type Likely } from '../../domain/likely'
import { Main, Plain } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Head, Page, Problem } from '../../ui/Page'
import { Select } from '../../ui/Select'
import { useDraft } from '../../ui/useDraft'
import { useStock, useStockChanged } from './useShelf'

type Sort = Schemas['LineIn']['sort']

const SORTS = [
  { value: 'head', words: 'Head' },
  { value: 'wires', words: 'Snare wires' },
  { value: 'rod', words: 'Tension rod' },
  { value: 'claw', words: 'Claw' },
  { value: 'part', words: 'Small part' },
] as const
const SIZE: Record<Sort, string> = {
  head: 'Diameter',
  wires: 'For a drum of',
  rod: 'Length, in mm',
  claw: 'Size, if it matters',
  part: 'Size, if it matters',
}
const NAME: Record<Sort, string> = {
  head: 'Line of heads',
  wires: 'Line of wires',
  rod: 'Thread',
  claw: 'What it is',
  part: 'What it is',
}
const FINISHES = ['clear', 'coated', 'smooth-white', 'ebony', 'fibre', 'suede', 'mesh', 'skin'] as const
const DAMPINGS = ['none', 'edge-ring', 'dot', 'foam'] as const
const words = (among: readonly string[]) => among.map((each) => [each, each.replace('-', ' ')] as const)

const FRESH = {
  sort: 'head' as Sort,
  name: '',
  size: '',
  count: '',
  minimum: '',
  place: '',
  note: '',
  used: 'new',
  plies: '1',
  mil: '10',
  finish: 'clear',
  damping: 'none',
  vent: 'no',
  side: 'either',
  strands: '20',
  tie: 'cord',
  made: 'coiled',
}
type Draft = typeof FRESH
const COUNT = between(0, 100, 'Few shelves hold more than 100 of one line.')
const MINIMUM = between(0, 50, 'Few lines are kept in more than 50.')
const MIL = between(2, 30, 'All plies together are usually 2 to 30.')
const STRANDS = between(4, 42, 'Snare wires usually have 4 to 42 strands.')

function asked(said: Draft, id: string, described: boolean): Schemas['LineIn'] {
  const facts =
    described && said.sort === 'head'
      ? {
          head: {
            plies: Number(said.plies),
            film_mil: Number(said.mil.replace(',', '.')),
            vent: said.vent === 'yes',
            finish: said.finish,
            damping: said.damping,
            side: said.side,
          } as Schemas['HeadFacts'],
        }
      : described && said.sort === 'wires'
        ? { wires: { strands: Number(said.strands), tie: said.tie, made: said.made } as Schemas['WireFacts'] }
        : {}
  return {
    id,
    sort: said.sort,
    name: said.name,
    size: said.size,
    used: said.used === 'used',
    count: Number(said.count || 0),
    minimum: Number(said.minimum || 0),
    place: said.place,
    note: said.note,
    ...facts,
  }
}

/** A new line of the shelf, with what lies there now. */
export function NewLinePage() {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [query] = useSearchParams()
  const [id] = useState(newId)
  const [said, setSaid, forget] = useDraft<Draft>('new-line', { ...FRESH, name: query.get('name') ?? '' })
  const known = useStock().data?.lines ?? []
  const changed = useStockChanged()
  const names = [...new Set(known.filter((row) => row.sort === said.sort).map((row) => row.what))]
  const isNew =
    Boolean(said.name.trim()) && !names.some((name) => name.toLowerCase() === said.name.trim().toLowerCase())
  const begin = useMutation({
    mutationFn: () => unwrap(api.POST('/api/shelf/lines', { body: asked(said, id, isNew) })),
    onSuccess: (line) => {
      forget()
      changed()
      queries.setQueryData(keys.stockLine(line.row.id), line)
      void navigate(`/shelf/${line.row.id}`, { replace: true })
    },
  })
  const refused = begin.error instanceof ApiError ? begin.error.body : null
  const set = (name: keyof Draft) => (value: string) => {
    begin.reset()
    setSaid({ ...said, [name]: value })
  }
  const field = (
    name: keyof Draft,
    label: string,
    more: { inputMode?: 'numeric'; list?: string; hint?: string; likely?: Likely } = {},
  ) => (
    <Field
      label={label}
      value={said[name]}
      onChange={set(name)}
      error={refused?.fields[name]}
      name={name}
      {...more}
    />
  )
  return (
    <Page>
      <Head>
        <h1>A new line</h1>
      </Head>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          begin.mutate()
        }}
      >
        <Choice label="What is it" value={said.sort} onChange={set('sort')} options={SORTS} />
        <Grid>
          {field('name', NAME[said.sort], { list: 'lines-known' })}
          <datalist id="lines-known">
            {names.map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
          {field('size', SIZE[said.sort])}
          {field('count', 'How many are there', { inputMode: 'numeric', likely: COUNT })}
          {field('minimum', 'How many to keep', {
            inputMode: 'numeric',
            likely: MINIMUM,
            hint: 'Below that it is on the buying list.',
          })}
          {field('place', 'Place')}
          {field('note', 'Note')}
        </Grid>
        {said.sort === 'head' ? (
          <Choice
            label="New, or taken off another drum"
            value={said.used}
            onChange={set('used')}
            options={[
              { value: 'new', words: 'New' },
              { value: 'used', words: 'Used', note: 'lies apart, for an emergency only' },
            ]}
          />
        ) : null}
        {isNew && said.sort === 'head' ? (
          <Grid role="group" aria-label="What it is made of">
            <Select
              label="Plies"
              value={said.plies}
              onChange={set('plies')}
              options={[
                ['1', 'one'],
                ['2', 'two'],
                ['3', 'three'],
              ]}
            />
            {field('mil', 'Film of all plies, in thousandths of an inch', { likely: MIL })}
            <Select label="Finish" value={said.finish} onChange={set('finish')} options={words(FINISHES)} />
            <Select
              label="Damping built in"
              value={said.damping}
              onChange={set('damping')}
              options={words(DAMPINGS)}
            />
            <Select
              label="Vented edge"
              value={said.vent}
              onChange={set('vent')}
              options={words(['no', 'yes'])}
            />
            <Select
              label="Side"
              value={said.side}
              onChange={set('side')}
              options={words(['either', 'batter', 'resonant'])}
            />
          </Grid>
        ) : null}
        {isNew && said.sort === 'wires' ? (
          <Grid role="group" aria-label="What they are made of">
            {field('strands', 'Strands', { inputMode: 'numeric', likely: STRANDS })}
            <Select
              label="Made of"
              value={said.made}
              onChange={set('made')}
              options={words(['coiled', 'cable', 'gut'])}
            />
            <Select
              label="Tied by"
              value={said.tie}
              onChange={set('tie')}
              options={words(['cord', 'strap'])}
            />
          </Grid>
        ) : null}
        {begin.error ? <Problem>{begin.error.message}</Problem> : null}
        <Foot>
          <Plain onPress={() => void navigate('/shelf')}>Shelf</Plain>
          <Main type="submit" isDisabled={!said.name.trim() || begin.isPending}>
            Begin this line
          </Main>
        </Foot>
      </Form>
    </Page>
  )
}

const Form = styled.form`
  display: grid;
  gap: 18px;
  padding: 18px 28px 28px;
  max-width: 900px;
  @media (max-width: 700px) {
    padding: 14px 16px 24px;
  }
`
const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 14px 28px;
`
const Foot = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  > button:last-child {
    min-width: min(300px, 60%);
  }
`
