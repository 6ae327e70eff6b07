import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { newId } from '../../domain/ids'
import { between } from '../../domain/likely'
import { Main } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { DayField } from '../../ui/DayField'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'
import { useDraft } from '../../ui/useDraft'
import { asStands, EMPTY, saysSomething, type Dated, type Found, type Where } from './stands'

interface Props {
  sheet: Schemas['Sheet']
  onClose: () => void
}

const NAMES: Record<Where, string> = { batter: 'Batter', resonant: 'Resonant', wires: 'Wires' }
const DATED = [
  { value: 'known', words: 'on a day' },
  { value: 'guessed', words: 'about' },
  { value: 'unknown', words: 'nobody knows' },
] as const

/** What is on a drum now, said without a job: what, since when as far as anybody knows, and how it sounds as found. */
export function WhatStands({ sheet, onClose }: Props) {
  const queries = useQueryClient()
  const [id] = useState(newId)
  const [said, setSaid, forget] = useDraft<Record<Where, Found>>(`stands:${sheet.tag}`, {
    batter: EMPTY,
    resonant: EMPTY,
    wires: EMPTY,
  })
  const known = useQuery({
    queryKey: [...keys.sheet(sheet.tag), 'may-be-on'],
    queryFn: () =>
      unwrap(api.GET('/api/register/drums/{tag}/stands', { params: { path: { tag: sheet.tag } } })),
  })
  const keep = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/register/drums/{tag}/stands', {
          params: { path: { tag: sheet.tag } },
          body: asStands(id, said),
        }),
      ),
    onSuccess: (kept) => {
      forget()
      queries.setQueryData(keys.sheet(sheet.tag), kept)
      void queries.invalidateQueries({ queryKey: keys.today })
      onClose()
    },
  })
  const refused = keep.error instanceof ApiError ? keep.error.body.fields : {}
  const places: Where[] = known.data?.wires.length ? ['batter', 'resonant', 'wires'] : ['batter', 'resonant']
  return (
    <Dialog title={`What is on ${sheet.name} now`} open wide onClose={onClose}>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          keep.mutate()
        }}
      >
        <div>
          {places.map((place) => (
            <Part
              key={place}
              place={place}
              said={said[place]}
              names={known.data?.[place] ?? []}
              refused={refused}
              onSaid={(next) => {
                keep.reset()
                setSaid({ ...said, [place]: next })
              }}
            />
          ))}
        </div>
        <Soft>
          Leave empty what you do not know. A pitch is one reading, or one for each rod with blanks between.
        </Soft>
        {keep.error ? <Problem>{keep.error.message}</Problem> : null}
        <Main type="submit" isDisabled={!saysSomething(said) || keep.isPending}>
          So it stands
        </Main>
      </Form>
    </Dialog>
  )
}

interface PartProps {
  place: Where
  said: Found
  names: string[]
  refused: Record<string, string>
  onSaid: (next: Found) => void
}

function Part({ place, said, names, refused, onSaid }: PartProps) {
  const set = (name: keyof Found) => (value: string) => onSaid({ ...said, [name]: value })
  return (
    <fieldset>
      <legend>{NAMES[place]}</legend>
      <Field
        label="What"
        value={said.what}
        onChange={set('what')}
        list={`on-${place}`}
        error={refused[place]}
        name={`${place}-what`}
      />
      <datalist id={`on-${place}`}>
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      {said.what.trim() ? (
        <>
          <Choice<Dated> label="Fitted" value={said.dated} onChange={set('dated')} options={DATED} />
          {said.dated === 'known' ? (
            <DayField label="Day" value={said.on} onChange={set('on')} name={`${place}-on`} />
          ) : null}
          {said.dated === 'guessed' ? (
            <Field
              label="Months ago"
              value={said.months}
              onChange={set('months')}
              inputMode="decimal"
              likely={between(0, 240, 'A head on for more than 20 years is rare.')}
              name={`${place}-months`}
            />
          ) : null}
        </>
      ) : null}
      {place === 'wires' ? null : (
        <Field
          label="Pitch as found"
          value={said.pitch}
          onChange={set('pitch')}
          error={refused[`${place}_pitch`]}
          name={`${place}-pitch`}
        />
      )}
    </fieldset>
  )
}

const Form = styled.form`
  display: grid;
  gap: 16px;
  > div {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
    gap: 12px 28px;
  }
  fieldset {
    display: flex;
    flex-direction: column;
    gap: 12px;
    margin: 0;
    padding: 0;
    border: 0;
    min-width: 0;
  }
  legend {
    font: 600 18px var(--slab);
    padding-bottom: 4px;
  }
`
