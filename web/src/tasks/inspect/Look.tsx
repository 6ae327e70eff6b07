import { useRef, useState } from 'react'
import { Soft } from '../../ui/Page'
import { Ask, Board, PictureBox, SaidBox } from './board'
import { Camera } from './Camera'
import { DrumPicture } from './DrumPicture'
import { FoundRows } from './FoundRows'
import { InHand } from './InHand'
import { knownMarks } from './knownMarks'
import type { Look as Found, Part, Tick, WalkDrum } from './log/fold'
import { LookFoot } from './LookFoot'
import { LookPhotos } from './LookPhotos'
import { NoteSheet } from './NoteSheet'
import { PartTabs } from './PartTabs'
import { Ticks } from './Ticks'
import { useLook } from './useLook'
import { useLookActs } from './useLookActs'
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
  const { inHand, asked } = hand
  const [noting, setNoting] = useState(false)
  const camera = useRef<HTMLInputElement>(null)
  const photo = () => camera.current?.click()
  const known = knownMarks(drum, look)
  const here = <M extends { finding: string; side: Found['marks'][number]['side'] }>(marks: readonly M[]) =>
    marks.filter((mark) => partOf(mark, tickOf(mark.finding)) === hand.part)
  const marks = here(look.marks)
  const acts = useLookActs({ hand, look, known, goesOut, mayChange, say, onDone, photo })
  const tick = inHand ? tickOf(inHand.finding) : undefined
  return (
    <>
      <Board>
        <PartTabs parts={parts} part={hand.part} look={look} tickOf={tickOf} onOpen={hand.open} />
        <PictureBox>
          <DrumPicture {...{ drum, look, hand, marks, tickOf }} known={here(known)} />
        </PictureBox>
        <SaidBox>
          {asked ? (
            <Ask role="status">
              At which rod: {asked.words}? <Soft>Tap it, or type its number.</Soft>
            </Ask>
          ) : null}
          {inHand && tick && mayChange && !asked ? (
            <InHand
              {...{ tick, drum }}
              mark={inHand}
              onDegree={hand.grade}
              onNote={() => setNoting(true)}
              onPhoto={photo}
              onEnough={hand.letGo}
            />
          ) : null}
          <FoundRows
            {...{ drum, look, known, tickOf, mayChange }}
            inHand={inHand?.event ?? null}
            onTake={hand.take}
            onAway={hand.away}
            onStill={(row) => void say({ kind: 'again', rows: [row] })}
            onGone={(row) => void say({ kind: 'gone', rows: [row] })}
          />
          <LookPhotos tag={drum.tag} since={since} wordsOf={(about) => tickOf(about)?.words ?? 'this look'} />
        </SaidBox>
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
        <LookFoot
          {...{ acts, goesOut, last }}
          said={look.marks.length + look.again.size + look.gone.size > 0}
          withPhoto={!inHand}
        />
      ) : null}
      <Camera at={camera} tag={drum.tag} about={inHand?.finding ?? 'look'} />
      {noting && inHand ? (
        <NoteSheet
          title={tick?.words ?? ''}
          value={inHand.note}
          onClose={() => setNoting(false)}
          onKeep={(note) => void say({ kind: 'changed', event: inHand.event, note })}
        />
      ) : null}
    </>
  )
}
