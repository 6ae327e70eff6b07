import { useMemo, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { putAway } from '../../api/outbox'
import { mayChange, useSession } from '../../api/session'
import { Plain } from '../../ui/Button'
import { Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import type { Look as Found, Part, Tick, Walk, WalkDrum } from './log/fold'
import { Look } from './Look'
import { DrumsSheet } from './DrumsSheet'
import { useWalk, type Said } from './useWalk'
import { VerdictNote } from './VerdictNote'

/** The drum after this one that was not looked at, going round once. */
function nextTag(walk: Walk, looks: Map<string, Found>, after: string): string | null {
  const from = walk.drums.findIndex((drum) => drum.tag === after)
  const order = [...walk.drums.slice(from + 1), ...walk.drums.slice(0, Math.max(0, from))]
  const open = order.find(({ tag }) => {
    const look = looks.get(tag)
    return look && !look.looked && !look.notHere
  })
  return open?.tag ?? null
}

/** A walk along some drums, or the look at one. */
export function WalkPage() {
  const { walk: id = '' } = useParams()
  const [query] = useSearchParams()
  const session = useSession()
  const walked = useWalk(id)
  const { walk, looks, error } = walked
  if (error) return <Problem>{error.message}</Problem>
  if (!walk || !looks) return <Page />
  const asked = walk.drums.find((drum) => drum.tag === query.get('at'))
  const drum =
    asked ??
    walk.drums.find(({ tag }) => !looks.get(tag)?.looked && !looks.get(tag)?.notHere) ??
    walk.drums[0]
  if (!drum) return <Problem>There is no drum in this walk.</Problem>
  return (
    <AtDrum
      key={drum.tag}
      {...{ walk, looks, drum, walked }}
      enter={walked.enter}
      may={mayChange(session.data)}
    />
  )
}

interface AtDrumProps {
  walk: Walk
  looks: Map<string, Found>
  drum: WalkDrum
  enter: (drum: string, said: Said) => Promise<string>
  walked: ReturnType<typeof useWalk>
  may: boolean
}

/** What the head of the page says is fitted. */
function headsWords(drum: WalkDrum): string {
  return drum.heads
    .map((each) => `${each.side} ${each.head}${each.months === null ? '' : `, ${each.months} months`}`)
    .join('; ')
}

function AtDrum({ walk, looks, drum, enter, walked, may }: AtDrumProps) {
  const navigate = useNavigate()
  const [listing, setListing] = useState(false)
  const look = looks.get(drum.tag)
  const ticks = useMemo(() => new Map(walk.ticks.map((tick) => [tick.id, tick])), [walk.ticks])
  const can = walk.can[drum.kind] ?? {}
  const at = walk.drums.findIndex((each) => each.tag === drum.tag)
  const following = nextTag(walk, looks, drum.tag)
  const go = (tag: string | null) =>
    void navigate(tag ? `/inspect/${walk.id}?at=${encodeURIComponent(tag)}` : `/inspect/${walk.id}/sum`, {
      replace: true,
    })
  const beside = (step: number) => () => go(walk.drums[at + step]?.tag ?? drum.tag)
  useKeys({ n: () => go(following), '/': () => setListing(true), '[': beside(-1), ']': beside(1) })
  const before = walk.verdicts.filter((each) => each.tag !== drum.tag).sort((a, b) => b.seq - a.seq)[0]
  const nameOf = (tag: string) => walk.drums.find((each) => each.tag === tag)?.name ?? tag
  const say = (said: Said) => enter(drum.tag, said)
  if (!look) return null
  const goesOut = look.out ?? walk.going_out
  return (
    <Page>
      <Top>
        <h1>{drum.name}</h1>
        <Num>{drum.tag}</Num>
        <Soft>
          {drum.kind_words}, {drum.size}
        </Soft>
        <Where data-end>
          <Plain onPress={() => setListing(true)}>
            {walk.name === drum.name ? drum.place : `${walk.name}, ${at + 1} of ${walk.drums.length}`}
          </Plain>
        </Where>
      </Top>
      <Under>
        <Soft>{headsWords(drum) || 'Nothing on record as fitted.'}</Soft>
        {before && !look.looked ? (
          <Link to={`/inspect/${walk.id}?at=${encodeURIComponent(before.tag)}`}>
            {nameOf(before.tag)}: {before.headline}
          </Link>
        ) : null}
      </Under>
      {look.notHere ? <Problem>Not here. Look at it all the same, or go on.</Problem> : null}
      {walked.refused.map((entry) => (
        <Problem key={entry.event.id}>
          {entry.message}{' '}
          <button type="button" onClick={() => void putAway(entry)}>
            <u>Put it away</u>
          </button>
        </Problem>
      ))}
      {look.looked ? (
        <VerdictNote
          drum={drum}
          verdict={walk.verdicts.find((each) => each.tag === drum.tag) ?? null}
          mayChange={may}
          lookedId={look.looked}
          last={following === null}
          say={say}
          onNext={() => go(following)}
          onPlan={() => void navigate(`/inspect/${walk.id}/sum`)}
        />
      ) : (
        <Look
          drum={drum}
          look={look}
          parts={Object.keys(can) as Part[]}
          ticks={(part) => (can[part] ?? []).flatMap((known) => ticks.get(known) ?? ([] as Tick[]))}
          tickOf={(finding) => ticks.get(finding)}
          say={say}
          goesOut={goesOut}
          mayChange={may}
          last={following === null}
          since={walk.started_at}
          onDone={() => {
            void say({ kind: 'looked' })
            if (walk.drums.length > 1) go(following)
          }}
        />
      )}
      {listing ? (
        <DrumsSheet
          walk={walk}
          looks={looks}
          at={drum.tag}
          mayChange={may}
          onGo={(tag) => {
            setListing(false)
            go(tag)
          }}
          onAdded={walked.again}
          onClose={() => setListing(false)}
        />
      ) : null}
    </Page>
  )
}

const Top = styled(Head)`
  @media (max-width: 700px) {
    flex-wrap: nowrap;
    gap: 10px;
    padding: 8px 16px;
    align-items: center;
    > span:not([data-end]):last-of-type,
    > h1 + span + span {
      display: none;
    }
    > [data-end] {
      display: block;
    }
    h1 {
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
  }
`
const Where = styled.span`
  flex: none;
  button {
    min-height: 44px;
    margin: -8px 0;
    border-color: var(--rule);
    font: 500 15.5px var(--text);
  }
  @media (max-width: 700px) {
    button {
      margin: 0;
      padding: 0 10px;
      font-size: 14px;
      max-width: 46vw;
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
  }
`
const Under = styled.p`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 20px;
  padding: 7px 28px;
  border-bottom: 1px solid var(--rule);
  font-size: 14.5px;
  a {
    text-decoration: underline;
    text-decoration-thickness: 1px;
    text-underline-offset: 3px;
  }
  @media (max-width: 700px) {
    padding: 3px 16px;
    font-size: 13px;
    flex-wrap: nowrap;
    > * {
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
      min-width: 0;
      flex: 0 1 auto;
    }
    > a {
      flex-shrink: 2;
    }
  }
`
