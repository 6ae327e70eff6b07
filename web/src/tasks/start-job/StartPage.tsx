import { useQuery } from '@tanstack/react-query'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Key, Main, Plain } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Head, Num, Owed, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { HeadAndReason } from './HeadAndReason'
import { PatternChoice } from './PatternChoice'
import { useStartJob, type Given, type Offer, type Side } from './useStartJob'

/** Decide what a job starts with: the heads, the reason, the order, the wanted pitch. */
export function StartPage() {
  const { tag = '' } = useParams()
  const [query] = useSearchParams()
  const sheet = useQuery({
    queryKey: keys.sheet(tag),
    queryFn: () => unwrap(api.GET('/api/register/drums/{tag}/sheet', { params: { path: { tag } } })),
  })
  if (sheet.error) return <Problem>{sheet.error.message}</Problem>
  if (!sheet.data) return <Page />
  const offers = sheet.data.work
  const part = query.get('part')
  const offer = offers.find((each) => each.work === query.get('work') && (!part || each.part === part))
  if (!offer)
    return <Problem>There is no such work. The drum’s own page lists what can be done with it.</Problem>
  return (
    <Start sheet={sheet.data} offer={offer} reason={query.get('reason') === 'age' ? 'past its age' : ''} />
  )
}

/** Refusals that are about the wanted pitch stand at its field. */
const PITCH_REFUSED = new Set(['bad_quantity', 'beyond_limits'])

function titleOf({ sheet, offer }: Given): string {
  const due = offer.answers_checks && sheet.sides.some((each) => each.side === offer.part && each.check_due)
  if (due) return `Settling check: ${sheet.name}`
  return offer.changes_heads ? `${offer.words} for ${sheet.name}` : `${offer.words}: ${sheet.name}`
}

function Start(props: Given) {
  const { sheet, offer } = props
  const navigate = useNavigate()
  const start = useStartJob(props)
  const { stateOf, chosen, set, go, pending, refused } = start
  useKeys({ PageDown: go, ' ': go })
  const first = stateOf(offer.sides[0] ?? 'batter')
  const now = offer.sides
    .map((side) => `${side} now: ${stateOf(side)?.head ?? 'nothing on record'}`)
    .join('; ')
  const aboutPitch = refused && PITCH_REFUSED.has(refused.code) ? refused.message : undefined
  return (
    <Page>
      <Head>
        <h1>{titleOf(props)}</h1>
        <Num>{sheet.tag}</Num>
        <Soft>
          {sheet.kind_words}, {sheet.size}, {first?.rods} rods
          {first?.lost.length ? `, rod ${first.lost.join(', ')} missing` : ''}; {now}
        </Soft>
      </Head>
      <Body>
        {offer.why_not ? <Problem>{offer.why_not}</Problem> : null}
        {offer.sides.length > 1 ? (
          <Choice<Side>
            label="Which head first; it is read again at the end"
            value={chosen.first}
            onChange={set('first')}
            options={offer.sides.map((side) => ({ value: side, words: `${side} first` }))}
          />
        ) : null}
        <Heads data-many={offer.sides.length > 1 || undefined}>
          {offer.sides.map((side) => (
            <OneHead key={side} side={side} offer={offer} start={start} problem={aboutPitch} />
          ))}
        </Heads>
        <PatternChoice
          rods={first?.rods ?? 0}
          lost={first?.lost ?? []}
          value={chosen.pattern}
          onChange={set('pattern')}
        />
        <Choice<Cadence>
          label="Turns are confirmed"
          value={chosen.cadence}
          onChange={set('cadence')}
          options={CADENCES}
        />
        {refused && !aboutPitch ? (
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
        <Main onPress={go} isDisabled={pending || Boolean(offer.why_not)}>
          {pending ? 'Opening the job' : 'Start on the bench'} <Key>space</Key>
        </Main>
        <Plain onPress={() => void navigate(`/drums/${sheet.tag}`)}>Not now</Plain>
      </Foot>
    </Page>
  )
}

type Cadence = Schemas['Cadence']
const CADENCES: { value: Cadence; words: string; note: string }[] = [
  { value: 'rod', words: 'rod by rod', note: 'one key' },
  { value: 'pair', words: 'by facing pair', note: 'two keys' },
  { value: 'pass', words: 'by pass', note: 'the whole round at once' },
]

interface OneHeadProps {
  side: Side
  offer: Offer
  start: ReturnType<typeof useStartJob>
  problem: string | undefined
}

/** What comes on one side, why the old head goes, and the pitch it is brought to. */
function OneHead({ side, offer, start, problem }: OneHeadProps) {
  const head = start.headOf(side)
  return (
    <section aria-label={`${side} head`}>
      {offer.sides.length > 1 ? <h2>{side}</h2> : null}
      {offer.changes_heads ? (
        <HeadAndReason
          heads={start.shelfOf(side)}
          stock={start.stockOf(side)}
          onStock={(picked) => start.setHead(side, { picked })}
          reason={head.reason}
          onReason={(reason) => start.setHead(side, { reason })}
          said={head.said}
          onSaid={(said) => start.setHead(side, { said })}
          beside={offer.sides.length > 1}
        />
      ) : null}
      <Field
        label={`Wanted pitch at the ${side} rods`}
        value={head.target}
        onChange={(target) => start.setHead(side, { target })}
        name={`target-${side}`}
        error={problem}
        hint={
          offer.changes_heads
            ? 'hertz or a note, such as 175 or F3 +5; empty: hold the pitch it comes to'
            : 'empty: even it where it stands'
        }
      />
    </section>
  )
}

const Heads = styled.div`
  display: flex;
  flex-direction: column;
  gap: 22px;
  section {
    display: flex;
    flex-direction: column;
    gap: 18px;
  }
  h2 {
    font-size: 19px;
    text-transform: capitalize;
  }
  &[data-many] {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(340px, 1fr));
    gap: 22px 40px;
  }
`
const Body = styled.div`
  label,
  input,
  select {
    scroll-margin-bottom: 120px; /* the foot stays in sight and must not cover what has the focus */
  }
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
