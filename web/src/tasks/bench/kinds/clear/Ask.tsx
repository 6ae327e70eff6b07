import type { Next } from '../../cursor'
import type { Bench } from '../../log/types'
import type { Reading } from './reading'
import { EarButtons, type Judgement } from './EarButtons'
import { TypeIt } from './TypeIt'
import { Why } from '../../parts'

interface Props {
  bench: Bench
  next: Extract<Next, { kind: 'read' }>
  reading: Reading
  onWhole: (judged: Judgement) => void
  /** Deeds under their letters, while nothing is typed. */
  letterKeys: Readonly<Record<string, () => void>>
}

/** What is asked of the rod in hand: a number, or how it sounds beside another; or, when all are read, what they say together. */
export function Ask({ bench, next, reading, onWhole, letterKeys }: Props) {
  const { rod, middle } = reading
  const amid = rod === null && !middle
  if (amid && reading.tapped) return null // what all taps say together holds only in their right order
  if (bench.means === 'ear')
    return rod === null ? (
      <>
        <Why>The middle too, if you like. Beside the wanted tone:</Why>
        <EarButtons about="The whole head" chosen={next.lap.whole} onJudge={onWhole} />
      </>
    ) : (
      <EarButtons about={`Rod ${rod} beside rod ${bench.head.reference ?? ''}`} onJudge={reading.judge} />
    )
  if (amid && next.lap.pair)
    return (
      <Why>
        All taps together: the head rings at {next.lap.pair.lower_hz.toFixed(1)} along the dashed line and{' '}
        {next.lap.pair.upper_hz.toFixed(1)} Hz across it. Each rod is read as the blend it hears.
      </Why>
    )
  if (amid) return <Why>Change one by choosing its number in the ladder, or let the turns be worked out.</Why>
  return (
    <TypeIt
      what={middle ? 'the middle' : `rod ${rod}`}
      round={next.lapNo}
      means={bench.means}
      reading={reading}
      {...(bench.means === 'pitch' ? { letterKeys } : {})}
    />
  )
}
