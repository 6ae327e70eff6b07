import type { ReactElement } from 'react'
import type { Bench, Step } from '../log/types'
import { Level, OnOff } from './AlongTheBed'
import { CutOpen, Foam, OnTheHead, Patch, Port, Wrinkles } from './Bass'
import { Drawing } from './Drawing'
import { Pigtail, Rope, RopeAlign, RopeRange } from './Rope'
import { SnareSide } from './SnareSide'

type Draw = (bench: Bench) => ReactElement
type Drawn = Exclude<Step['picture'], ''>

const snare = (focus: Parameters<typeof SnareSide>[0]['focus']): Draw =>
  function Snare(bench) {
    return <SnareSide head={bench.head} badge={bench.badge} focus={focus} />
  }
const rope = (focus: Parameters<typeof Rope>[0]['focus']): Draw =>
  function Laced() {
    return <Rope focus={focus} />
  }

const PICTURES: Record<Drawn, Draw> = {
  gate: snare('gate'),
  'wires-free': snare('wires-free'),
  knob: snare('knob'),
  strainer: snare('strainer'),
  butt: snare('butt'),
  'bed-rods': snare('bed-rods'),
  level: () => <Level />,
  'on-off': () => <OnOff />,
  port: ({ head, badge }) => <Port head={head} badge={badge} />,
  patch: ({ head, badge }) => <Patch head={head} badge={badge} />,
  foam: ({ head, badge }) => <Foam head={head} badge={badge} />,
  wrinkles: ({ head, badge }) => <Wrinkles head={head} badge={badge} />,
  'muffle-piece': ({ head, badge }) => <OnTheHead head={head} badge={badge} what="muffle-piece" />,
  'muffle-ring': ({ head, badge }) => <OnTheHead head={head} badge={badge} what="muffle-ring" />,
  'muffle-towel': () => <CutOpen what="muffle-towel" />,
  'muffle-pad': () => <CutOpen what="muffle-pad" />,
  'ears-up': rope('ears-up'),
  unlace: rope('unlace'),
  slack: rope('slack'),
  'ears-on': rope('ears-on'),
  pull: rope('pull'),
  segments: rope('segments'),
  align: () => <RopeAlign />,
  range: () => <RopeRange />,
  pigtail: () => <Pigtail />,
}

/** What the step looks like when it is done right, drawn from this drum. */
export function StepPicture({ bench, step }: { bench: Bench; step: Step }) {
  if (!step.picture) return null
  const wide = bench.head.rods === 0
  return (
    <Drawing
      viewBox={wide ? '-176 -118 352 236' : '-176 -132 352 264'}
      role="img"
      aria-label={step.picture_words}
    >
      {PICTURES[step.picture](bench)}
    </Drawing>
  )
}
