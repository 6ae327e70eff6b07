import type { DragEvent } from 'react'
import styled from 'styled-components'
import { Bearing, bearingWords } from '../../../../ui/Bearing'
import { Later } from '../../../../ui/Waiting'
import { rodsRead, type Next } from '../../cursor'
import type { Bench, Means, Uneven } from '../../log/types'
import { inHundred, type Reading } from './reading'
import { ListenLine } from './listening/ListenLine'
import { ToneButton } from './listening/ToneButton'
import { Ask } from './Ask'
import { DoubtNote } from './DoubtNote'
import type { Judgement } from './EarButtons'
import { Change, Line, MeansLine } from './MeansLine'
import { Amid, Because, Big, Cautions, Label, Note, Panel, Why } from '../../parts'
import { Found } from './Noticed'
import { TargetLine } from './TargetLine'

type ReadNext = Extract<Next, { kind: 'read' }>

interface Props {
  bench: Bench
  next: ReadNext
  reading: Reading
  onTarget: (typed: string) => void
  onMeans: (means: Means, reference?: number) => void
  onWhole: (judged: Judgement) => void
  onUneven: (what: Uneven, start: number) => void
  letterKeys: Readonly<Record<string, () => void>>
}

/** One rod after the other: a pitch, a number, or how it sounds beside another. */
export function ReadPanel(props: Props) {
  const { bench, next, reading, onTarget, onMeans, onWhole, onUneven, letterKeys } = props
  const { middle } = reading
  const rod = middle ? null : reading.rod
  const heard = next.lap.rods.filter((each) => each.reading).length
  const byEar = bench.means === 'ear'
  return (
    <Panel {...drop(bench.means === 'pitch' ? reading.listening.files : null)}>
      {next.lapNo === 0 && heard === 0 ? <Cautions of={next.step.cautions} /> : null}
      <Two>
        <div data-testid="instruction">
          <Label>
            {middle
              ? `Round ${next.lapNo + 1}, tap once in the`
              : rod === null
                ? `Round ${next.lapNo + 1}: every rod is read`
                : byEar
                  ? `Round ${next.lapNo + 1}: beside rod ${bench.head.reference ?? 1}, how sounds rod`
                  : `Round ${next.lapNo + 1}, ${bench.means === 'pitch' ? 'tap at' : 'read'} rod`}
          </Label>
          {middle ? <Amid>middle</Amid> : <Big>{rod ?? rodsRead(next.lap)}</Big>}
        </div>
        <Bearing
          rods={bench.head.rods}
          lost={bench.head.lost}
          badge={bench.badge}
          now={rod}
          wires={bench.snare}
          axis={next.lap.pair?.axis_deg ?? null}
          size={byEar ? 104 : 116}
          words={rod ? bearingWords(rod, bench.head.rods, bench.badge) : ''}
          label={
            rod ? `Rod ${rod}: ${bearingWords(rod, bench.head.rods, bench.badge)}` : 'The head from above'
          }
        />
      </Two>
      <ByTaps next={next} />
      {reading.doubt ? <DoubtNote doubt={reading.doubt} pitch={bench.means === 'pitch'} /> : null}
      {reading.tapped ? (
        <Note role="status" aria-label="Look at this first">
          <b>Tapped in another order.</b> {reading.tapped.words}
        </Note>
      ) : null}
      {next.lap.asked ? (
        <Later>The turns are worked out when the server answers; go on reading. All you read is kept.</Later>
      ) : null}
      <Ask {...{ bench, next, reading, onWhole, letterKeys }} />
      <div>
        {bench.means === 'pitch' ? (
          <ListenLine job={bench.id} listening={reading.listening} simulated={bench.simulated} />
        ) : null}
        <Line>
          <MeansLine bench={bench} onMeans={onMeans} />
          {bench.means === 'pitch' && bench.other_head ? <OtherHead reading={reading} /> : null}
          {byEar && bench.head.target_hz ? <ToneButton hz={bench.head.target_hz} /> : null}
        </Line>
        {bench.means === 'pitch' ? (
          <TargetLine bench={bench} lap={next.lap} onTarget={onTarget} onUneven={onUneven} />
        ) : null}
      </div>
      {next.lap.centre ? (
        <Label>
          The drum’s note, in the middle:{' '}
          {next.lap.centre.hz === null ? next.lap.centre.typed : `${next.lap.centre.hz.toFixed(1)} Hz`}{' '}
          {next.lap.centre.note}
        </Label>
      ) : null}
      {next.lap.compared ? (
        <Why>{next.lap.compared}</Why>
      ) : rod !== null && heard === 0 && !byEar ? (
        <>
          <Why>{next.step.say}</Why>
          <Because key={next.step.id} of={next.step.why} />
        </>
      ) : null}
      <Expected bench={bench} next={next} />
    </Panel>
  )
}

/** What the taps between the turns of the round before came to. */
function ByTaps({ next }: { next: ReadNext }) {
  const left = next.step.laps[next.lapNo - 1]?.left
  if (!left || next.lap.rods.some((rod) => rod.reading)) return null
  return (
    <>
      <Found findings={left.findings} />
      <Why>
        {left.ask === 'done'
          ? `Even by the taps, ${inHundred(left.chance_now)} in 100. Tap round once to be sure, or leave it so.`
          : 'By the taps no turn more is worth making: a round tells more.'}
      </Why>
    </>
  )
}

/** How the other head lies; it decides what a tap may be taken for. */
function OtherHead({ reading: { otherMuted, muteOther } }: Pick<Props, 'reading'>) {
  return (
    <span>
      Other head{' '}
      <Change
        aria-label={`Other head ${otherMuted ? 'muted, on a cloth' : 'ringing along'}: change`}
        onPress={() => muteOther(!otherMuted)}
      >
        {otherMuted ? 'muted' : 'ringing along'}
      </Change>
    </span>
  )
}

/** Recordings may be let fall anywhere on the instruction. */
const drop = (take: ((files: readonly File[]) => void) | null) =>
  take
    ? {
        onDragOver: (event: DragEvent) => event.preventDefault(),
        onDrop: (event: DragEvent) => {
          event.preventDefault()
          take([...event.dataTransfer.files])
        },
      }
    : {}

/** What the round before foretold for this one. */
function Expected({ bench, next }: { bench: Bench; next: ReadNext }) {
  const before = next.lapNo > 0 ? next.step.laps[next.lapNo - 1]?.plan : null
  if (!before || next.lap.afresh || before.means !== bench.means || before.means === 'ear') return null
  return (
    <Label>
      Expected now: within {before.predicted_spread.toFixed(1)} {before.unit} round{' '}
      {before.predicted_mean.toFixed(1)}.
    </Label>
  )
}

const Two = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  > figure {
    margin: -4px -4px 0 0;
  }
`
