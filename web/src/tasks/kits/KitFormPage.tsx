import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Main, Plain, Quiet } from '../../ui/Button'
import { DayField } from '../../ui/DayField'
import { Field } from '../../ui/Field'
import { Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { Select } from '../../ui/Select'
import { useDraft } from '../../ui/useDraft'
import { Waiting } from '../../ui/Waiting'
import { useKit, type Kit } from './useKit'

type Role = Schemas['Role']
interface Member {
  tag: string
  name: string
  what: string
  role: Role | ''
}
interface Draft {
  name: string
  occasion: string
  at: string
  day: string
  drums: Member[]
}

const ROLES: readonly (readonly [Role | '', string])[] = [
  ['', 'what it usually does'],
  ['snare', 'snare'],
  ['snares', 'of a snare line'],
  ['tom', 'tom'],
  ['quad', 'of the quads'],
  ['line', 'of the bass line'],
  ['bass', 'bass drum'],
  ['beside', 'beside them'],
]

/** More than these are found by typing on. */
const MOST_FOUND = 8
const EMPTY: Draft = { name: '', occasion: '', at: '', day: '', drums: [] }

function draftOf(kit: Kit): Draft {
  const drums = kit.drums.map((each) => ({
    tag: each.tag,
    name: each.name,
    what: `${each.kind_words} ${each.size}`,
    role: each.role,
  }))
  return { name: kit.name, occasion: kit.occasion, at: kit.at, day: kit.day ?? '', drums }
}

/** Put a kit together, or change who plays in it. */
export function KitFormPage() {
  const { kit } = useParams()
  const found = useKit(Number(kit ?? 0))
  if (!kit) return <Form fresh={EMPTY} />
  if (found.error) return <Problem>{found.error.message}</Problem>
  return found.data ? <Form key={kit} kit={found.data} fresh={draftOf(found.data)} /> : <Waiting />
}

function Form({ kit, fresh }: { kit?: Kit; fresh: Draft }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [draft, setDraft, forget] = useDraft<Draft>(`kit:${kit?.id ?? 'new'}`, fresh)
  const set = (name: keyof Draft) => (value: string) => setDraft({ ...draft, [name]: value })
  const save = useMutation({
    mutationFn: () => {
      const body = {
        ...draft,
        day: draft.day || null,
        drums: draft.drums.map(({ tag, role }) => ({ tag, role: role || null })),
      }
      return kit
        ? unwrap(api.PUT('/api/kits/{kit_id}', { params: { path: { kit_id: kit.id } }, body }))
        : unwrap(api.POST('/api/kits', { body }))
    },
    onSuccess: (saved) => {
      forget()
      queries.setQueryData(keys.kit(saved.id), saved)
      for (const queryKey of [keys.kits, keys.choices, ['drums'], ['sheet']])
        void queries.invalidateQueries({ queryKey })
      void navigate(`/kits/${saved.id}`)
    },
  })
  const refused = save.error instanceof ApiError ? save.error : null
  const aboutName = refused?.body.code === 'kit_taken' ? refused.message : undefined
  const move = (n: number, by: number) => {
    const drums = [...draft.drums]
    const [taken] = drums.splice(n, 1)
    if (taken) drums.splice(n + by, 0, taken)
    setDraft({ ...draft, drums })
  }
  return (
    <Page>
      <Head>
        <h1>{kit ? `The drums of ${kit.name}` : 'A new kit'}</h1>
        <Soft>In their row, the highest first: steps go from each tom to the next.</Soft>
        <Link to={kit ? `/kits/${kit.id}` : '/kits'} data-end>
          <u>{kit ? 'the plan' : 'Kits'}</u>
        </Link>
      </Head>
      <Columns>
        <section aria-label="The kit">
          <Field label="Name" name="name" value={draft.name} onChange={set('name')} error={aboutName} />
          <Field
            label="Occasion"
            name="occasion"
            value={draft.occasion}
            onChange={set('occasion')}
            hint="may be left empty"
          />
          <Field label="Where" name="at" value={draft.at} onChange={set('at')} />
          <DayField label="Day" name="day" value={draft.day} onChange={set('day')} />
          {save.error && !aboutName ? <Problem>{save.error.message}</Problem> : null}
          <Main onPress={() => save.mutate()} isDisabled={!draft.name.trim() || save.isPending}>
            {kit ? 'Keep it so' : 'See how they stand'}
          </Main>
        </section>
        <section aria-label="Its drums">
          <AddDrum
            there={draft.drums.map((each) => each.tag)}
            onAdd={(member) => setDraft({ ...draft, drums: [...draft.drums, member] })}
          />
          <Row>
            {draft.drums.map((each, n) => (
              <li key={each.tag}>
                <span>
                  <b>{each.name}</b> <Num>{each.tag}</Num> <Soft>{each.what}</Soft>
                </span>
                <Select
                  label={`What ${each.name} does`}
                  hideLabel
                  value={each.role}
                  onChange={(role) =>
                    setDraft({
                      ...draft,
                      drums: draft.drums.map((other) =>
                        other.tag === each.tag ? { ...other, role: role as Role | '' } : other,
                      ),
                    })
                  }
                  options={ROLES}
                />
                <span>
                  <Quiet
                    aria-label={`${each.name} higher in the row`}
                    isDisabled={!n}
                    onPress={() => move(n, -1)}
                  >
                    ↑
                  </Quiet>
                  <Quiet
                    aria-label={`${each.name} lower in the row`}
                    isDisabled={n === draft.drums.length - 1}
                    onPress={() => move(n, 1)}
                  >
                    ↓
                  </Quiet>
                  <Quiet
                    aria-label={`Take ${each.name} out`}
                    onPress={() =>
                      setDraft({ ...draft, drums: draft.drums.filter((other) => other.tag !== each.tag) })
                    }
                  >
                    out
                  </Quiet>
                </span>
              </li>
            ))}
          </Row>
        </section>
      </Columns>
    </Page>
  )
}

/** Find a drum by its name or tag and put it into the row. */
function AddDrum({ there, onAdd }: { there: string[]; onAdd: (member: Member) => void }) {
  const [text, setText] = useState('')
  const line = useRef<HTMLInputElement>(null)
  const filter = { text: text.trim() }
  const found = useQuery({
    queryKey: keys.drums({ ...filter, for: 'kit' }),
    queryFn: () => unwrap(api.GET('/api/register/drums', { params: { query: filter } })),
    enabled: text.trim().length > 1,
  })
  const drums = text.trim().length > 1 ? (found.data?.drums ?? []) : []
  const free = drums
    .filter((each) => !there.includes(each.tag) && each.state !== 'retired')
    .slice(0, MOST_FOUND)
  const add = (drum: (typeof drums)[number] | undefined) => {
    if (!drum) return
    onAdd({ tag: drum.tag, name: drum.name, what: `${drum.kind_words} ${drum.size}`, role: '' })
    setText('')
    line.current?.focus()
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        add(free[0])
      }}
    >
      <Field
        label="Add a drum"
        name="add"
        value={text}
        onChange={setText}
        inputRef={line}
        hint="its name, its tag, or what it is; Enter takes the first"
      />
      <Found>
        {free.map((each) => (
          <Plain key={each.tag} onPress={() => add(each)}>
            {each.name}{' '}
            <Soft>
              {each.tag}, {each.kind_words} {each.size}
            </Soft>
          </Plain>
        ))}
      </Found>
    </form>
  )
}

const Columns = styled.div`
  display: grid;
  grid-template-columns: 352px minmax(0, 1fr);
  > section {
    display: flex;
    flex-direction: column;
    gap: 16px;
    padding: 18px 28px;
  }
  > section + section {
    border-left: 1px solid var(--rule);
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    > section {
      padding: 12px 16px;
    }
    > section:first-child {
      order: 2;
    }
    > section + section {
      border-left: 0;
    }
  }
`
const Row = styled.ol`
  border-top: 1px solid var(--ink);
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 190px auto;
    align-items: center;
    gap: 14px;
    padding: 5px 0;
    border-bottom: 1px solid var(--rule);
  }
  b {
    font: 600 18px var(--slab);
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    li > span:first-child {
      grid-column: 1 / -1;
    }
  }
`
const Found = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-top: 8px;
`
