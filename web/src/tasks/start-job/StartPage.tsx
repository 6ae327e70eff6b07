import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { useSession } from '../../api/session'
import { Key, Main, Plain } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Head, Num, Owed, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { PatternChoice } from './PatternChoice'
import { OTHER_REASON, REASONS } from './reasons'

type Side = 'batter' | 'resonant'

/** Decide what a job starts with: the head, the reason, the order, the wanted pitch. */
export function StartPage() {
  const { tag = '' } = useParams()
  const [query] = useSearchParams()
  const side: Side = query.get('side') === 'resonant' ? 'resonant' : 'batter'
  const procedure = query.get('procedure') === 'new-batter-head' ? 'new-batter-head' : 'settling-check'
  const sheet = useQuery({
    queryKey: keys.sheet(tag),
    queryFn: () => unwrap(api.GET('/api/register/drums/{tag}/sheet', { params: { path: { tag } } })),
  })
  if (sheet.error) return <Problem>{sheet.error.message}</Problem>
  if (!sheet.data) return <Page />
  return (
    <Start
      sheet={sheet.data}
      side={side}
      procedure={procedure}
      reason={query.get('reason') === 'age' ? 'past its age' : ''}
    />
  )
}

interface Props {
  sheet: Schemas['Sheet']
  side: Side
  procedure: 'new-batter-head' | 'settling-check'
  reason: string
}

function Start({ sheet, side, procedure, reason: first }: Props) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const workshop = useSession().data?.workshop
  const state = sheet.sides.find((each) => each.side === side)
  const changing = procedure === 'new-batter-head'
  const id = useRef(crypto.randomUUID())
  const [picked, setPicked] = useState<string | null>(null)
  const [reason, setReason] = useState(first)
  const [said, setSaid] = useState('')
  const [pattern, setPattern] = useState(workshop?.pattern ?? 'star')
  const [target, setTarget] = useState(state?.wanted_hz ? String(state.wanted_hz) : '')
  const heads = useQuery({
    queryKey: keys.heads(sheet.tag, side),
    queryFn: () =>
      unwrap(api.GET('/api/heads/fitting/{tag}/{side}', { params: { path: { tag: sheet.tag, side } } })),
    enabled: changing,
    staleTime: 0,
  })
  const start = useMutation({
    mutationFn: (body: Schemas['StartJob']) => unwrap(api.POST('/api/bench/jobs', { body })),
    onSuccess: (bench) => {
      queries.setQueryData(keys.job(bench.id), { last_seq: bench.last_seq, bench })
      void queries.invalidateQueries({ queryKey: keys.today })
      void queries.invalidateQueries({ queryKey: keys.sheet(sheet.tag) })
      void navigate(`/bench/${bench.id}`, { replace: true })
    },
  })
  const stock =
    picked ??
    String(
      heads.data?.find((head) => head.count > 0 && head.head === state?.head)?.stock_item ??
        heads.data?.find((head) => head.count > 0)?.stock_item ??
        '',
    )
  const go = () =>
    start.mutate({
      id: id.current,
      tag: sheet.tag,
      procedure,
      side,
      stock_item: changing && stock && stock !== 'none' ? Number(stock) : null,
      reason: changing ? (reason === OTHER_REASON ? said : reason) : '',
      pattern,
      target,
    })
  const refused = start.error instanceof ApiError ? start.error.body : null
  useKeys({ PageDown: go, ' ': go })
  return (
    <Page>
      <Head>
        <h1>
          {changing
            ? `New batter head for ${sheet.name}`
            : `${state?.check_due ? 'Settling check' : 'Clear'}: ${sheet.name}`}
        </h1>
        <Num>{sheet.tag}</Num>
        <Soft>
          {sheet.kind_words}, {sheet.size}, {state?.rods} rods
          {state?.lost.length ? `, rod ${state.lost.join(', ')} missing` : ''}; {side} now:{' '}
          {state?.head ?? 'nothing on record'}
        </Soft>
      </Head>
      <Body>
        {changing ? (
          <>
            {heads.data && heads.data.length === 0 ? (
              <p>No head of this size is on the shelf’s list. Start without one; name it when you close.</p>
            ) : null}
            <Choice
              label="Head from the shelf"
              value={stock || null}
              onChange={setPicked}
              options={[
                ...(heads.data ?? []).map((head) => ({
                  value: String(head.stock_item),
                  words: `${head.head}, ${head.size}`,
                  note: head.count ? `shelf ${head.shelf}, ${head.count} left` : 'none left',
                  disabled: head.count === 0,
                })),
                { value: 'none', words: 'Not from the shelf', note: 'the count stays' },
              ]}
            />
            <Choice
              label="Why the old head goes"
              value={reason || null}
              onChange={setReason}
              options={REASONS.map((each) => ({ value: each, words: each }))}
            />
            {reason === OTHER_REASON ? (
              <Field label="In your words" value={said} onChange={setSaid} name="reason" />
            ) : null}
          </>
        ) : null}
        <Field
          label={`Wanted pitch at the ${side} rods`}
          value={target}
          onChange={setTarget}
          name="target"
          error={refused?.code === 'bad_quantity' ? refused.message : undefined}
          hint={
            changing
              ? 'hertz or a note, such as 175 or F3 +5; empty: hold the pitch it comes to'
              : 'empty: even it where it stands'
          }
        />
        <PatternChoice
          rods={state?.rods ?? 0}
          lost={state?.lost ?? []}
          value={pattern}
          onChange={setPattern}
        />
        {refused && refused.code !== 'bad_quantity' ? (
          <Problem>
            {refused.message}{' '}
            {refused.fields['job'] ? (
              <a href={`/bench/${refused.fields['job']}`}>
                <u>Open that job</u>
              </a>
            ) : null}
          </Problem>
        ) : null}
        {sheet.state === 'out' ? <Owed>This drum is marked out.</Owed> : null}
      </Body>
      <Foot>
        <Main onPress={go} isDisabled={start.isPending}>
          {start.isPending ? 'Opening the job' : 'Start on the bench'} <Key>space</Key>
        </Main>
        <Plain onPress={() => void navigate(`/drums/${sheet.tag}`)}>Not now</Plain>
      </Foot>
    </Page>
  )
}

const Body = styled.div`
  flex: 1;
  padding: 18px 28px;
  display: flex;
  flex-direction: column;
  gap: 22px;
  max-width: 1080px;
  > div:nth-last-child(n) {
    max-width: 100%;
  }
  @media (max-width: 700px) {
    padding: 14px 16px;
  }
`
const Foot = styled.footer`
  position: sticky;
  bottom: 0;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 12px 28px;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  > :first-child {
    min-width: 380px;
  }
  @media (max-width: 700px) {
    padding: 10px 16px;
    > :first-child {
      min-width: 0;
      flex: 1;
    }
  }
`
