import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'
import { useNavigate, useParams } from 'react-router'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { useSession } from '../../api/session'
import { Main, Plain } from '../../ui/Button'
import { Head, Page, Problem, Soft } from '../../ui/Page'
import { useDraft } from '../../ui/useDraft'
import { Waiting } from '../../ui/Waiting'
import { BuildFields, IdentityFields, PitchFields, PlaceFields } from './fields'
import { Leaving } from './Leaving'
import { fresh, fromForm, toForm, type DrumForm } from './form'
import { mergedForm } from './merge'

/** Add a drum, or change what is known of one. */
export function DrumFormPage() {
  const { tag } = useParams()
  const choices = useQuery({
    queryKey: keys.choices,
    queryFn: () => unwrap(api.GET('/api/register/choices')),
    staleTime: 0,
  })
  const drum = useQuery({
    queryKey: keys.drum(tag ?? ''),
    queryFn: () => unwrap(api.GET('/api/register/drums/{tag}', { params: { path: { tag: tag ?? '' } } })),
    enabled: Boolean(tag),
  })
  const failed = drum.error ?? choices.error
  if (failed) return <Problem>{failed.message}</Problem>
  if (!choices.data || (tag && !drum.data)) return <Waiting />
  const start = drum.data ? toForm(drum.data) : fresh(choices.data)
  return <Form key={tag ?? 'new'} tag={tag ?? null} start={start} choices={choices.data} />
}

interface Props {
  tag: string | null
  start: DrumForm
  choices: Schemas['Choices']
}

function useSave(
  tag: string | null,
  done: (saved: Schemas['DrumIn']) => void,
  meanwhile: (theirs: Schemas['DrumIn']) => void,
) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['DrumEdit']) =>
      tag
        ? unwrap(api.PUT('/api/register/drums/{tag}', { params: { path: { tag } }, body }))
        : unwrap(api.POST('/api/register/drums', { body })),
    onSuccess: (saved) => {
      for (const key of ['drums', 'drum', 'sheet', 'choices', 'today'])
        void queries.invalidateQueries({ queryKey: [key] })
      done(saved)
    },
    onError: async (error) => {
      if (!tag || !(error instanceof ApiError) || error.body.code !== 'edited_meanwhile') return
      meanwhile(await unwrap(api.GET('/api/register/drums/{tag}', { params: { path: { tag } } })))
    },
  })
}

function Form({ tag, start, choices }: Props) {
  const navigate = useNavigate()
  const unit = useSession().data?.workshop?.length_unit ?? 'in'
  const [form, setForm, forget] = useDraft(`drum:${tag ?? 'new'}`, start)
  const [local, setLocal] = useState<Record<string, string>>({})
  const save = useSave(
    tag,
    (saved) => {
      forget()
      void navigate(`/drums/${saved.tag}`)
    },
    (theirs) => setForm(mergedForm(form, theirs)),
  )
  const refused = save.error instanceof ApiError ? save.error.body : null
  const errors = { ...refused?.fields, ...local }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const { body, problems } = fromForm(form)
    setLocal(problems)
    if (body) save.mutate(body)
  }
  const part = {
    form,
    set: (next: Partial<DrumForm>) => setForm({ ...form, ...next }),
    errors,
    choices,
    unit,
  }
  return (
    <Page>
      <Head>
        <h1>{tag ? `Edit ${start.name}` : 'Add a drum'}</h1>
        <Soft>
          lengths in{' '}
          {unit === 'in'
            ? 'inches; 14, 5 1/2 or 356 mm are all read'
            : 'millimetres; 356, 14 in are all read'}
        </Soft>
      </Head>
      <Sheet onSubmit={submit} noValidate>
        <IdentityFields {...part} />
        <BuildFields {...part} />
        <PitchFields {...part} />
        <PlaceFields {...part} />
        {tag ? <Leaving tag={tag} state={start.state} /> : null}
        {refused ? <Problem>{refused.message} What you filled in is still here.</Problem> : null}
        {Object.keys(local).length ? (
          <Problem>Some entries need another look; they are marked.</Problem>
        ) : null}
        <Foot>
          <Main type="submit" isDisabled={save.isPending}>
            {save.isPending ? 'Saving' : tag ? 'Save changes' : 'Enter in the register'}
          </Main>
          <Plain
            onPress={() => {
              forget()
              void navigate(tag ? `/drums/${tag}` : '/drums')
            }}
          >
            Leave as it was
          </Plain>
        </Foot>
      </Sheet>
    </Page>
  )
}

const Sheet = styled.form`
  padding: 10px 28px 0;
  display: flex;
  flex-direction: column;
  gap: 18px;
  max-width: 1240px;
  @media (max-width: 700px) {
    padding: 8px 16px 0;
  }
`
const Foot = styled.footer`
  position: sticky;
  bottom: var(--above-rail);
  display: flex;
  gap: 12px;
  padding: 12px 0;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  align-items: center;
`
