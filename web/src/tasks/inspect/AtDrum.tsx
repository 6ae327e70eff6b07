import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { putAway } from '../../api/outbox'
import { Page, Problem } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { DrumHead } from './DrumHead'
import { DrumsSheet } from './DrumsSheet'
import type { Look as Found, Part, Walk, WalkDrum } from './log/fold'
import { Look } from './Look'
import { nextTag } from './order'
import type { Said, useWalk } from './useWalk'
import { VerdictNote } from './VerdictNote'

interface Props {
  walk: Walk
  looks: Map<string, Found>
  drum: WalkDrum
  look: Found
  walked: ReturnType<typeof useWalk>
  may: boolean
}

/** One drum of a walk: looked at, or with its verdict; the way to the next one, and to any other. */
export function AtDrum({ walk, looks, drum, look, walked, may }: Props) {
  const navigate = useNavigate()
  const [listing, setListing] = useState(false)
  const ticks = useMemo(() => new Map(walk.ticks.map((tick) => [tick.id, tick])), [walk.ticks])
  const can = walk.can[drum.kind] ?? {}
  const at = walk.drums.findIndex((each) => each.tag === drum.tag)
  const following = nextTag(walk, looks, drum.tag)
  const sum = `/inspect/${walk.id}/sum`
  const go = (tag: string | null) =>
    void navigate(tag ? `/inspect/${walk.id}?at=${encodeURIComponent(tag)}` : sum, { replace: true })
  const beside = (step: number) => () => go(walk.drums[at + step]?.tag ?? drum.tag)
  useKeys({ f: () => go(following), '/': () => setListing(true), '[': beside(-1), ']': beside(1) })
  const before = walk.verdicts.filter((each) => each.tag !== drum.tag).sort((a, b) => b.seq - a.seq)[0]
  const say = (said: Said) => walked.enter(drum.tag, said)
  return (
    <Page>
      <DrumHead
        {...{ walk, drum }}
        before={look.looked ? undefined : before}
        onList={() => setListing(true)}
      />
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
          {...{ drum, say }}
          verdict={walk.verdicts.find((each) => each.tag === drum.tag) ?? null}
          mayChange={may}
          lookedId={look.looked}
          last={following === null}
          onNext={() => go(following)}
          onPlan={() => void navigate(sum)}
          onTonight={({ work, part }) => void navigate(`/drums/${drum.tag}/start?work=${work}&part=${part}`)}
        />
      ) : (
        <Look
          {...{ drum, look, say }}
          parts={Object.keys(can) as Part[]}
          ticks={(part) => (can[part] ?? []).flatMap((known) => ticks.get(known) ?? [])}
          tickOf={(finding) => ticks.get(finding)}
          goesOut={look.out ?? walk.going_out}
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
          {...{ walk, looks }}
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
