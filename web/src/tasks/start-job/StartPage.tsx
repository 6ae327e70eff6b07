import { useQuery } from '@tanstack/react-query'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Key, Main, Plain } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Head, Num, Owed, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { Waiting } from '../../ui/Waiting'
import { PatternChoice } from './PatternChoice'
import { useStartJob, type Given } from './useStartJob'
import { DrumNow } from './DrumNow'
import { OneHead } from './OneHead'
import { Schools } from './Schools'
import { Body, Foot, Heads } from './StartForm'

/** Decide what a job starts with: the heads, the reason, the order, the wanted pitch. */
export function StartPage() {
  const { tag = '' } = useParams()
  const [query] = useSearchParams()
  const sheet = useQuery({
    queryKey: keys.sheet(tag),
    queryFn: () => unwrap(api.GET('/api/register/drums/{tag}/sheet', { params: { path: { tag } } })),
  })
  if (sheet.error) return <Problem>{sheet.error.message}</Problem>
  if (!sheet.data) return <Waiting />
  const offers = sheet.data.work
  const part = query.get('part')
  const offer = offers.find((each) => each.work === query.get('work') && (!part || each.part === part))
  if (!offer)
    return <Problem>There is no such work. The drum’s own page lists what can be done with it.</Problem>
  return (
    <Start
      sheet={sheet.data}
      offer={offer}
      reason={query.get('reason') === 'age' ? 'past its age' : ''}
      stock={query.get('stock')}
    />
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
  const { stateOf, chosen, wayOf, setWay, go, pending, refused } = start
  useKeys({ PageDown: go, ' ': go })
  const first = stateOf(offer.sides[0] ?? 'batter')
  const now = offer.sides
    .map((side) => `${side} now: ${stateOf(side)?.head ?? 'nothing on record'}`)
    .join('; ')
  const turns = Boolean(offer.sides.length && first?.rods)
  const aboutPitch = refused && PITCH_REFUSED.has(refused.code) ? refused.message : undefined
  return (
    <Page>
      <Head>
        <h1>{titleOf(props)}</h1>
        <Num>{sheet.tag}</Num>
        <Soft>
          {sheet.kind_words}, {sheet.size}, {first?.rods ? `${first.rods} rods` : 'rope'}
          {first?.lost.length ? `, rod ${first.lost.join(', ')} missing` : ''}
          {now ? `; ${now}` : ''}
        </Soft>
      </Head>
      <Body>
        {offer.why_not ? <Problem>{offer.why_not}</Problem> : null}
        {offer.sides.length > 1 && !offer.mesh && turns ? (
          <Choice
            label="Which head first; it is read again at the end"
            value={wayOf('first_head') === 'usual' ? (offer.usual_first ?? '') : wayOf('first_head')}
            onChange={setWay('first_head')}
            options={offer.sides.map((side) => ({ value: side, words: `${side} first` }))}
          />
        ) : null}
        <Heads data-many={offer.sides.length > 1 || undefined}>
          {offer.sides.map((side) => (
            <OneHead
              key={side}
              tag={sheet.tag}
              side={side}
              offer={offer}
              start={start}
              problem={aboutPitch}
            />
          ))}
        </Heads>
        {offer.why_not ? null : <DrumNow kind={sheet.kind} begun={chosen.begun} onChange={start.setBegun} />}
        {turns ? (
          <>
            <PatternChoice
              rods={first?.rods ?? 0}
              lost={first?.lost ?? []}
              value={wayOf('pattern')}
              onChange={setWay('pattern')}
            />
            <Choice<Cadence>
              label="Turns are confirmed"
              value={chosen.cadence}
              onChange={start.setCadence}
              options={CADENCES}
            />
          </>
        ) : null}
        {offer.why_not ? null : (
          <Schools tag={sheet.tag} offer={offer} wayOf={wayOf} onChange={setWay} asked={chosen.otherwise} />
        )}
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
        <Main onPress={go} isDisabled={pending || Boolean(start.wants)} aria-describedby="cannot-start">
          {pending ? 'Opening the job' : 'Start on the bench'} <Key>space</Key>
        </Main>
        <Soft id="cannot-start" role="status">
          {pending ? '' : start.wants}
        </Soft>
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
