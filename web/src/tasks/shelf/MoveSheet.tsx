import { useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { useQueryClient } from '@tanstack/react-query'
import { likelyCount } from '../../domain/likely'
import { Main } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { DayField } from '../../ui/DayField'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Page'
import { of, type Deed } from './deeds'
import { asksWhatHappened, useAct, type Explained, type Line } from './useShelf'
import { WhatHappened } from './WhatHappened'

interface Said {
  number: string
  place: string
  batch: string
  to: string
  words: string
  what: string
  drum: string
  due: string
}

const EMPTY: Said = { number: '1', place: '', batch: '', to: '', words: '', what: '', drum: '', due: '' }

function send(line: Line, deed: Deed, said: Said, id: string, explained: '' | Explained): Promise<unknown> {
  const path = { line: line.row.id }
  const number = Number(said.number)
  if (deed === 'back')
    return unwrap(
      api.POST('/api/shelf/lines/{line}/back', {
        params: { path },
        body: { id, number, what: said.what, batch: said.batch, place: said.place, words: said.words },
      }),
    )
  if (deed === 'lent')
    return unwrap(
      api.POST('/api/shelf/loans', {
        body: {
          id,
          number,
          line: line.row.id,
          what: '',
          from_tag: '',
          to_tag: said.drum,
          to_words: said.to,
          due_on: said.due || null,
          explained,
        },
      }),
    )
  const body: Schemas['StockMoveIn'] = {
    id,
    why: deed,
    number,
    place: said.place,
    batch: said.batch,
    to: said.to,
    words: said.words,
    drum: said.drum,
    explained,
  }
  return unwrap(api.POST('/api/shelf/lines/{line}/moves', { params: { path }, body }))
}

interface Props {
  line: Line
  deed: Deed
  /** How many it is, most likely. */
  proposed?: number
  onDone?: (line: Line) => void
  onClose: () => void
}

/** What happened to a line: how many, where, and what else that deed asks for. */
export function MoveSheet({ line, deed, proposed = 1, onDone, onClose }: Props) {
  const queries = useQueryClient()
  const about = of(deed)
  const [said, setSaid] = useState<Said>({ ...EMPTY, number: deed === 'counted' ? '' : String(proposed) })
  const act = useAct<Said>((id, asked, explained) =>
    send(line, deed, asked, id, explained).then(async (done) => {
      await queries.invalidateQueries({ queryKey: keys.stockLine(line.row.id) })
      if (deed !== 'lent') onDone?.(done as Line) // lending answers with nothing
      onClose()
      return done
    }),
  )
  const set = (name: keyof Said) => (value: string) => {
    act.reset()
    setSaid({ ...said, [name]: value })
  }
  const asks = asksWhatHappened(act.error)
  const field = (name: keyof Said, label: string) => (
    <Field
      label={label}
      value={said[name]}
      onChange={set(name)}
      error={
        act.error instanceof ApiError ? act.error.body.fields[name === 'drum' ? 'to_tag' : name] : undefined
      }
    />
  )
  const ready =
    /^\d+$/.test(said.number.trim()) && (deed !== 'back' || said.what) && (deed !== 'moved' || said.to.trim())
  return (
    <Dialog title={`${about.words}: ${line.called}`} open onClose={onClose}>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          if (ready) act.mutate({ asked: said })
        }}
      >
        <Field
          label={about.number}
          value={said.number}
          onChange={set('number')}
          inputMode="numeric"
          likely={likelyCount(line.row.there)}
          proposed
        />
        {deed === 'back' ? (
          <Choice
            label="What is wrong"
            value={said.what || null}
            onChange={set('what')}
            columns={2}
            options={line.arrivals.map((each) => ({ value: each.id, words: each.words, note: each.look }))}
          />
        ) : null}
        {deed === 'lent' ? (
          <>
            {field('drum', 'To which drum (its tag)')}
            {field('to', 'or to whom')}
            <DayField label="Back by" value={said.due} onChange={set('due')} />
          </>
        ) : null}
        {deed === 'moved' ? field('to', 'To which place') : null}
        {deed === 'lent' ? null : (
          <Two>
            {field(
              'place',
              deed === 'moved'
                ? `From (now ${line.row.place || 'no place'})`
                : `Place, if not ${line.row.place || 'the usual one'}`,
            )}
            {field('batch', 'Batch, if told apart')}
          </Two>
        )}
        {deed === 'fitted' ? field('drum', 'On which drum (its tag)') : null}
        {deed === 'lent' || deed === 'moved' ? null : field('words', 'A word on it')}
        {deed === 'bought' && line.arrivals.length ? (
          <ul>
            {line.arrivals.map((each) => (
              <li key={each.id}>{each.look}</li>
            ))}
          </ul>
        ) : null}
        {asks ? (
          <WhatHappened
            error={act.error as ApiError}
            onSaid={(explained) => act.mutate({ asked: said, explained })}
          />
        ) : act.error ? (
          <Problem>{act.error.message}</Problem>
        ) : null}
        <Main type="submit" isDisabled={!ready || act.isPending}>
          {about.done}
        </Main>
      </Form>
    </Dialog>
  )
}

const Form = styled.form`
  display: grid;
  gap: 14px;
  ul {
    list-style: square;
    padding-left: 20px;
    font-size: 14.5px;
    color: var(--soft);
  }
`
const Two = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
`
