import { useRef, useState } from 'react'
import styled from 'styled-components'
import { addPhoto, smaller } from '../../api/photos'
import { Key, Main, Plain, Quiet } from '../../ui/Button'
import { Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { FoundRows } from './FoundRows'
import { InHand } from './InHand'
import { HeadPlan } from './HeadPlan'
import { knownMarks, missingRods } from './knownMarks'
import type { Look as Found, Part, Tick, WalkDrum } from './log/fold'
import { LookPhotos } from './LookPhotos'
import { NoteSheet } from './NoteSheet'
import { PartPicture } from './PartPicture'
import { PartTabs } from './PartTabs'
import { inSight, Ticks } from './Ticks'
import { useLook } from './useLook'
import type { Said } from './useWalk'
import { partOf } from './words'

interface Props {
  drum: WalkDrum
  look: Found
  parts: readonly Part[]
  ticks: (part: Part) => readonly Tick[]
  tickOf: (finding: string) => Tick | undefined
  say: (said: Said) => Promise<string>
  goesOut: boolean
  mayChange: boolean
  last: boolean
  /** When the walk began. */
  since: string
  onDone: () => void
}

/** One drum looked at: touch where it sits, tick what it is, say how bad; then the next. */
export function Look(props: Props) {
  const { drum, look, parts, tickOf, say, goesOut, mayChange, last, since, onDone } = props
  const hand = useLook(props)
  const { part, inHand, asked } = hand
  const [noting, setNoting] = useState(false)
  const camera = useRef<HTMLInputElement>(null)
  const known = knownMarks(drum, look)
  const onPart = (marks: typeof look.marks) =>
    marks.filter((mark) => partOf(mark, tickOf(mark.finding)) === part)
  const marks = onPart(look.marks)
  const pale = known.filter((mark) => partOf(mark, tickOf(mark.finding)) === part)
  const rows = known.flatMap((each) => (each.row === null ? [] : [each.row]))
  const again = rows.length && mayChange ? () => void say({ kind: 'again', rows }) : undefined
  const undo =
    look.own[0] && mayChange ? () => void say({ kind: 'taken_back', event: look.own[0] ?? '' }) : undefined
  const done = mayChange ? onDone : undefined
  const ticked = inSight(hand.ticks, hand.all)
  const digits = Object.fromEntries(
    [...'1234567890-='].map((key, n) => [
      key,
      asked
        ? () => hand.touchRod(n + 1)
        : ticked[n] && n < 9 && mayChange
          ? () => hand.tick(ticked[n] as Tick)
          : undefined,
    ]),
  )
  useKeys({
    ...digits,
    ' ': done,
    PageDown: done,
    ArrowRight: () => hand.turn(1),
    ArrowLeft: () => hand.turn(-1),
    ArrowUp: () => hand.worse(1),
    ArrowDown: () => hand.worse(-1),
    Escape: hand.letGo,
    a: again,
    u: undo,
    m: () => hand.setAll(!hand.all),
    p: () => camera.current?.click(),
    g: mayChange ? () => void say({ kind: 'goes_out', out: !goesOut }) : undefined,
    h: mayChange ? () => void say({ kind: 'not_here' }) : undefined,
  })
  const tickInHand = inHand ? tickOf(inHand.finding) : undefined
  return (
    <>
      <Board>
        <PartTabs parts={parts} part={part} look={look} tickOf={tickOf} onOpen={hand.open} />
        <Picture>
          {part === 'batter' || part === 'resonant' ? (
            <HeadPlan
              drum={drum}
              side={part}
              marks={marks}
              known={pale}
              missing={missingRods(drum, look, part)}
              inHand={inHand?.event ?? null}
              picked={hand.spot}
              rod={hand.rod}
              onSpot={hand.touch}
              onRod={hand.touchRod}
            />
          ) : (
            <PartPicture
              drum={drum}
              part={part}
              marks={marks}
              known={pale}
              inHand={inHand?.event ?? null}
              tickOf={tickOf}
            />
          )}
        </Picture>
        <Said>
          {asked ? (
            <Ask role="status">
              At which rod: {asked.words}? <Soft>Tap it, or type its number.</Soft>
            </Ask>
          ) : null}
          {inHand && tickInHand && mayChange && !asked ? (
            <InHand
              mark={inHand}
              tick={tickInHand}
              drum={drum}
              onDegree={hand.grade}
              onNote={() => setNoting(true)}
              onPhoto={() => camera.current?.click()}
              onEnough={hand.letGo}
            />
          ) : null}
          <FoundRows
            drum={drum}
            look={look}
            known={known}
            inHand={inHand?.event ?? null}
            tickOf={tickOf}
            mayChange={mayChange}
            onTake={hand.take}
            onAway={hand.away}
            onStill={(row) => void say({ kind: 'again', rows: [row] })}
            onGone={(row) => void say({ kind: 'gone', rows: [row] })}
          />
          <LookPhotos tag={drum.tag} since={since} wordsOf={(about) => tickOf(about)?.words ?? 'this look'} />
        </Said>
        {mayChange ? (
          <Ticks
            ticks={hand.ticks}
            ticked={new Set(marks.map((mark) => mark.finding))}
            all={hand.all}
            onAll={hand.setAll}
            onTick={hand.tick}
          />
        ) : null}
      </Board>
      {mayChange ? (
        <Foot>
          <Quiets>
            <Quiet isDisabled={!undo} onPress={() => undo?.()}>
              Undo <Key>U</Key>
            </Quiet>
            <Quiet aria-pressed={goesOut} onPress={() => void say({ kind: 'goes_out', out: !goesOut })}>
              {goesOut ? 'It goes out ✓' : 'It goes out'} <Key>G</Key>
            </Quiet>
            <Quiet onPress={() => void say({ kind: 'not_here' })}>
              Not here <Key>H</Key>
            </Quiet>
            {inHand ? null : (
              <Quiet onPress={() => camera.current?.click()}>
                Photo <Key>P</Key>
              </Quiet>
            )}
          </Quiets>
          {again ? (
            <Plain onPress={again}>
              As last time <Key>A</Key>
            </Plain>
          ) : null}
          <Main onPress={onDone}>
            {look.marks.length || look.again.size || look.gone.size
              ? last
                ? 'Done'
                : 'Next drum'
              : 'Nothing found'}{' '}
            <Key>space</Key>
          </Main>
        </Foot>
      ) : null}
      <input
        ref={camera}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label="Photo of what was seen"
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file)
            void smaller(file).then((image) =>
              addPhoto({ tag: drum.tag, job: '', about: inHand?.finding ?? 'look' }, image),
            )
        }}
      />
      {noting && inHand ? (
        <NoteSheet
          title={tickInHand?.words ?? ''}
          value={inHand.note}
          onClose={() => setNoting(false)}
          onKeep={(note) => void say({ kind: 'changed', event: inHand.event, note })}
        />
      ) : null}
    </>
  )
}

const Board = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(320px, 440px) minmax(0, 1fr);
  grid-template-areas: 'tabs tabs' 'picture ticks' 'picture said';
  grid-template-rows: auto auto 1fr;
  gap: 0 28px;
  padding: 0 28px 14px;
  > [role='tablist'] {
    grid-area: tabs;
  }
  > [role='group'] {
    grid-area: ticks;
    align-content: start;
    padding: 14px 0;
    @media (max-width: 900px) {
      padding: 4px 0 10px;
    }
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: 'tabs' 'picture' 'ticks' 'said';
    &:has([data-inhand]) {
      grid-template-areas: 'tabs' 'picture' 'said' 'ticks';
    }
    grid-template-rows: auto;
    align-content: start;
    padding: 0 16px 10px;
  }
`
const Picture = styled.div`
  grid-area: picture;
  padding-top: 6px;
  @media (max-width: 900px) {
    > svg {
      max-width: min(100%, 34dvh);
    }
  }
`
const Said = styled.div`
  grid-area: said;
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-width: 0;
`
const Ask = styled.p`
  padding: 12px 14px;
  border-left: 4px double var(--ink);
  background: var(--lifted);
  font: 600 18px var(--slab);
  span {
    font: 400 15px var(--text);
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
  > button:last-child {
    min-width: 300px;
  }
  @media (max-width: 700px) {
    bottom: 57px;
    flex-wrap: wrap;
    padding: 2px 16px 8px;
    gap: 2px 8px;
    > button {
      min-height: 60px;
    }
    > button:last-child {
      flex: 1;
      min-width: 0;
    }
  }
`
const Quiets = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  margin-right: auto;
  @media (max-width: 700px) {
    flex: 1 0 100%;
    flex-wrap: nowrap;
    justify-content: space-between;
    > button {
      padding: 0 4px;
      white-space: nowrap;
      min-height: 44px;
    }
  }
  [aria-pressed='true'] {
    font-weight: 650;
  }
`
