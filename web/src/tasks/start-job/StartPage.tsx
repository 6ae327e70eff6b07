import { useQuery } from '@tanstack/react-query'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { Key, Main, Plain } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Head, Num, Owed, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { HeadAndReason } from './HeadAndReason'
import { PatternChoice } from './PatternChoice'
import { useStartJob, type Given } from './useStartJob'

/** Decide what a job starts with: the head, the reason, the order, the wanted pitch. */
export function StartPage() {
  const { tag = '' } = useParams()
  const [query] = useSearchParams()
  const side = query.get('side') === 'resonant' ? 'resonant' : 'batter'
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

/** Refusals that are about the wanted pitch stand at its field. */
const PITCH_REFUSED = new Set(['bad_quantity', 'beyond_limits'])

function Start(props: Given) {
  const { sheet, side } = props
  const navigate = useNavigate()
  const { state, changing, heads, chosen, set, stock, go, pending, refused } = useStartJob(props)
  const { reason, said, pattern, target } = chosen
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
          <HeadAndReason
            heads={heads}
            stock={stock}
            onStock={set('picked')}
            reason={reason}
            onReason={set('reason')}
            said={said}
            onSaid={set('said')}
          />
        ) : null}
        <Field
          label={`Wanted pitch at the ${side} rods`}
          value={target}
          onChange={set('target')}
          name="target"
          error={refused && PITCH_REFUSED.has(refused.code) ? refused.message : undefined}
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
          onChange={set('pattern')}
        />
        {refused && !PITCH_REFUSED.has(refused.code) ? (
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
        <Main onPress={go} isDisabled={pending}>
          {pending ? 'Opening the job' : 'Start on the bench'} <Key>space</Key>
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
