import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Plain } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { Answer, Lines } from './Answer'

type Asked = Schemas['ChooseIn']
type Side = Schemas['Side']

const USES: { value: NonNullable<Asked['use']>; words: string }[] = [
  { value: 'drum-set', words: 'drum set' },
  { value: 'concert', words: 'concert' },
  { value: 'marching', words: 'marching' },
  { value: 'recording', words: 'recording' },
  { value: 'practice', words: 'practice' },
  { value: 'school', words: 'school, everything' },
]
const SOUNDS = [
  'open',
  'warm',
  'bright',
  'dark',
  'punchy',
  'dry',
  'articulate',
  'sensitive',
  'loud',
  'long',
  'short',
  'low',
  'high',
] as const satisfies readonly NonNullable<Asked['sound']>[number][]
const NEEDS: { value: NonNullable<Asked['needs']>[number]; words: string }[] = [
  { value: 'brushes', words: 'brushes' },
  { value: 'stage-light', words: 'stage light' },
  { value: 'quiet', words: 'quiet' },
  { value: 'lasting', words: 'must last' },
]

/** What a drum of this kind is mostly used for, until somebody says. */
function usual(kind: string): NonNullable<Asked['use']> {
  if (kind.startsWith('marching')) return 'marching'
  if (kind.startsWith('orchestral') || kind.startsWith('concert')) return 'concert'
  return kind === 'practice-mesh' ? 'practice' : 'drum-set'
}

const toggled = <T,>(list: readonly T[], each: T): T[] =>
  list.includes(each) ? list.filter((one) => one !== each) : [...list, each]

/** What head goes on: the sound in players’ words, two or three answers beside each other, and what the shelf has of them. */
export function ChoosePage() {
  const { tag = '' } = useParams()
  const sheet = useQuery({
    queryKey: keys.sheet(tag),
    queryFn: () => unwrap(api.GET('/api/register/drums/{tag}/sheet', { params: { path: { tag } } })),
  })
  if (sheet.error) return <Problem>{sheet.error.message}</Problem>
  if (!sheet.data) return <Page />
  return <Choose sheet={sheet.data} />
}

/** The work that puts a head on this side, as the drum’s own list of work has it. */
function changeOf(sheet: Schemas['Sheet'], side: Side): Schemas['OfferOut'] | undefined {
  const fits = sheet.work.filter((each) => each.changes_heads && each.sides.includes(side) && !each.why_not)
  return fits.find((each) => each.sides.length === 1) ?? fits[0]
}

function Choose({ sheet }: { sheet: Schemas['Sheet'] }) {
  const navigate = useNavigate()
  const [query, setQuery] = useSearchParams()
  const side: Side = query.get('side') === 'resonant' ? 'resonant' : 'batter'
  const [asked, setAsked] = useState<Required<Asked>>({ use: usual(sheet.kind), sound: [], needs: [] })
  const choice = useQuery({
    queryKey: keys.choose(sheet.tag, side, asked),
    queryFn: () =>
      unwrap(
        api.GET('/api/heads/choose/{tag}/{side}', {
          params: { path: { tag: sheet.tag, side }, query: asked },
        }),
      ),
    placeholderData: keepPreviousData,
  })
  const offer = changeOf(sheet, side)
  const start = offer
    ? (stock: number) =>
        void navigate(`/drums/${sheet.tag}/start?work=${offer.work}&part=${offer.part}&stock=${stock}`)
    : null
  const found = choice.data
  return (
    <Page>
      <Head>
        <h1>A head for {sheet.name}</h1>
        <Num>{sheet.tag}</Num>
        <Soft>
          {sheet.kind_words}, {sheet.size}; {side} now: {found?.now || 'not known'}
        </Soft>
      </Head>
      <Columns>
        <Wish aria-label="What is wanted">
          <Choice<Side>
            label="Which head"
            value={side}
            onChange={(next) => setQuery({ side: next }, { replace: true })}
            options={[
              { value: 'batter', words: 'batter' },
              { value: 'resonant', words: sheet.snare_bed ? 'snare side' : 'resonant' },
            ]}
          />
          <Choice
            label="Used for"
            value={asked.use}
            onChange={(use) => setAsked({ ...asked, use })}
            options={USES}
          />
          <Words role="group" aria-label="It should sound">
            <span>It should sound</span>
            {SOUNDS.map((word) => (
              <Plain
                key={word}
                aria-pressed={asked.sound.includes(word)}
                onPress={() => setAsked({ ...asked, sound: toggled(asked.sound, word) })}
              >
                {word}
              </Plain>
            ))}
          </Words>
          <Words role="group" aria-label="It must serve">
            <span>It must serve</span>
            {NEEDS.map(({ value, words }) => (
              <Plain
                key={value}
                aria-pressed={asked.needs.includes(value)}
                onPress={() => setAsked({ ...asked, needs: toggled(asked.needs, value) })}
              >
                {words}
              </Plain>
            ))}
          </Words>
        </Wish>
        <section aria-label="Answers">
          {choice.error ? <Problem>{choice.error.message}</Problem> : null}
          {found && !found.answers.length ? (
            <Problem>
              For skin and rope nobody can reckon a head. Choose by hand what lies on the shelf:{' '}
              {found.others.map((line) => line.head).join(', ') || 'nothing of this size'}.
            </Problem>
          ) : null}
          <Answers>
            {found?.answers.map((answer, n) => (
              <Answer key={answer.words} answer={answer} first={n === 0} onStart={start} />
            ))}
          </Answers>
          {found?.others.length ? (
            <Others aria-label="Also on the shelf">
              <h3>Also on the shelf, and not wrong</h3>
              <Lines>
                {found.others.map((line) => (
                  <li key={line.stock_item}>
                    <span>
                      {line.head} <Soft>{line.free ? `${line.free} free, ${line.shelf}` : 'none free'}</Soft>
                    </span>
                    {start && line.free ? (
                      <Plain onPress={() => start(line.stock_item)}>Take it</Plain>
                    ) : null}
                  </li>
                ))}
              </Lines>
            </Others>
          ) : null}
          {found?.excluded.length ? (
            <Not>
              <summary>Must not go on, and why</summary>
              <ul>
                {found.excluded.map((each) => (
                  <li key={each.because}>
                    {each.because} <Soft>{each.words}</Soft>
                  </li>
                ))}
              </ul>
            </Not>
          ) : null}
          <p>
            <Soft>
              What changes in pitch is computed, at the same tension; the rest is common practice. A used head
              only in an emergency: a seated film does not sit on another edge (C10).
            </Soft>
          </p>
        </section>
      </Columns>
    </Page>
  )
}

const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  > section {
    padding: 16px 28px 24px;
  }
  > section + section {
    border-left: 1px solid var(--rule);
    > p {
      padding-top: 12px;
      font-size: 15px;
      max-width: 80ch;
    }
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    > section {
      padding: 12px 16px;
    }
    > section + section {
      border-left: 0;
      border-top: 1px solid var(--rule);
    }
  }
`
const Wish = styled.section`
  display: flex;
  flex-direction: column;
  gap: 18px;
`
const Words = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  > span {
    flex: 1 0 100%;
    font-size: 13.5px;
    color: var(--soft);
  }
  > button {
    min-height: 46px;
    padding: 0 13px;
    border-color: var(--rule);
    font: 500 16px var(--text);
  }
  > button[aria-pressed='true'] {
    border-color: var(--ink);
    background: var(--ink);
    color: var(--on-ink);
  }
`
const Answers = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 0 26px;
`
const Others = styled.div`
  padding-top: 14px;
  max-width: 520px;
  h3 {
    font: 600 16px var(--slab);
    padding-bottom: 4px;
  }
`
const Not = styled.details`
  margin-top: 16px;
  border-top: 1px solid var(--rule);
  summary {
    min-height: 46px;
    display: flex;
    align-items: center;
    font: 600 16px var(--slab);
    cursor: pointer;
  }
  li {
    padding: 6px 0;
    border-top: 1px solid var(--rule);
    font-size: 15px;
  }
`
