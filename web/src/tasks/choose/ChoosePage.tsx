import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { Waiting } from '../../ui/Waiting'
import { Found } from './Found'
import { BeaterChoice } from './BeaterChoice'
import { WiresChoice } from './WiresChoice'
import { Wish, type Asked, type What } from './Wish'

type Side = Schemas['Side']

const WHATS: readonly What[] = ['batter', 'resonant', 'wires', 'beater']
const TITLES: Record<What, string> = {
  batter: 'A head',
  resonant: 'A head',
  wires: 'Wires',
  beater: 'A beater',
}

/** What a drum of this kind is mostly used for, until somebody says. */
function usual(kind: string): Asked['use'] {
  if (kind.startsWith('marching')) return 'marching'
  if (kind.startsWith('orchestral') || kind.startsWith('concert')) return 'concert'
  return kind === 'practice-mesh' ? 'practice' : 'drum-set'
}

/** The work that puts a head on this side, as the drum’s own list of work has it. */
function changeOf(sheet: Schemas['Sheet'], side: Side): Schemas['OfferOut'] | undefined {
  const fits = sheet.work.filter((each) => each.changes_heads && each.sides.includes(side) && !each.why_not)
  return fits.find((each) => each.sides.length === 1) ?? fits[0]
}

/** What head goes on: the sound in players’ words, two or three answers beside each other, and what the shelf has of them. */
export function ChoosePage() {
  const { tag = '' } = useParams()
  const sheet = useQuery({
    queryKey: keys.sheet(tag),
    queryFn: () => unwrap(api.GET('/api/register/drums/{tag}/sheet', { params: { path: { tag } } })),
  })
  if (sheet.error) return <Problem>{sheet.error.message}</Problem>
  if (!sheet.data) return <Waiting />
  return <Choose sheet={sheet.data} />
}

function Choose({ sheet }: { sheet: Schemas['Sheet'] }) {
  const navigate = useNavigate()
  const [query, setQuery] = useSearchParams()
  const what = WHATS.find((each) => each === query.get('side')) ?? 'batter'
  const side: Side = what === 'resonant' ? 'resonant' : 'batter'
  const [asked, setAsked] = useState<Asked>({
    use: usual(sheet.kind),
    sound: [],
    needs: [],
    budget: 'any',
    months: 0,
  })
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
  const start = (stock: number) =>
    void navigate(`/drums/${sheet.tag}/start?work=${offer?.work}&part=${offer?.part}&stock=${stock}`)
  const fitting = sheet.work.find((each) => each.part === 'wires' && each.new_wires && !each.why_not)
  const startWires = () => void navigate(`/drums/${sheet.tag}/start?work=${fitting?.work}&part=wires`)
  return (
    <Page>
      <Head>
        <h1>
          {TITLES[what]} for {sheet.name}
        </h1>
        <Num>{sheet.tag}</Num>
        <Soft>
          {sheet.kind_words}, {sheet.size}
          {what === side ? `; ${side} now: ${choice.data?.now || 'not known'}` : ''}
        </Soft>
      </Head>
      <Columns>
        <Wish
          side={what}
          asked={asked}
          wires={Boolean(sheet.wires)}
          beater={/bass/.test(sheet.kind)}
          snareSide={sheet.snare_bed}
          onSide={(next) => setQuery({ side: next }, { replace: true })}
          onAsked={setAsked}
        />
        <section aria-label="Answers">
          {what === 'wires' ? (
            <WiresChoice tag={sheet.tag} asked={asked} onStart={fitting ? startWires : null} />
          ) : null}
          {what === 'beater' ? <BeaterChoice tag={sheet.tag} asked={asked} /> : null}
          {what === side && choice.error ? <Problem>{choice.error.message}</Problem> : null}
          {what === side && choice.data ? <Found found={choice.data} onStart={offer ? start : null} /> : null}
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
