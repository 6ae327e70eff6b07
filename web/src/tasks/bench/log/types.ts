import type { Schemas } from '../../../api/client'
import type { Body } from '../../../api/outbox'

type QuestionOut = Schemas['QuestionOut']
export type Answer = Schemas['BenchOut']
export type Side = Schemas['Side']
export type Means = Schemas['Means']
export type Cadence = Schemas['Cadence']
export type StepKind = Answer['plan'][number]['kind']
export type Uneven = NonNullable<Extract<Body, { kind: 'uneven' }>['what']>

/** Who entered something, and when; `event` is the entry. */
export interface Mark {
  event: string
  by: string
  at: string
}

export interface Reading extends Mark {
  shown: string
  hz: number | null
  typed: string
  note: string
  cents: number | null
  doubtful: boolean
  tap: string
  /** It was asked about, and somebody said that it is so. */
  sure: boolean
}

/** One rod in one lap. `owed_32` is what this lap asks of it (null: nothing asked yet). */
export interface Rod {
  rod: number
  owed_32: number | null
  turned: (Mark & { turns_32: number | null }) | null
  reading: Reading | null
  number: string
  predicted: string
  predicted_cents: number | null
  predicted_sd_cents: number | null
  reference: boolean
  why: string
}

export type Plan = Omit<Schemas['PlanFigures'], 'entry' | 'rods'> & Mark

/** One pass of turns, or one round of reading and turning. */
export interface Lap {
  each_32: number | null
  until: string
  order: number[]
  rods: Rod[]
  plan: Plan | null
  /** The turns were asked for, and the server has not answered yet. */
  asked: boolean
  /** What was left of it after a tap between its turns. */
  left: Plan | null
  taps_between: number
  /** The last of them, where it was not worked out yet. */
  tap_open: string
  wanted_hz: number | null
  compared: string
  /** The first round after a rest. */
  afresh: boolean
  whole: string
  pair: Schemas['PairOut'] | null
  /** `hz` is null while only the server can read what was typed. */
  centre: (Mark & { typed: string; hz: number | null; note: string }) | null
  tapped: Schemas['TappedOut'] | null
}

/** A question of a step, with its answer as it is said. */
export interface Ask extends QuestionOut {
  values: string[]
  said: string
}

export interface Step {
  id: string
  title: string
  kind: StepKind
  side: Side | null
  say: string
  points: string[]
  tools: string[]
  cautions: string[]
  minutes: number
  more_pass_32: number | null
  /** What decides whether its passes are enough. */
  enough: string
  down: boolean
  again: boolean
  lays_out: boolean
  photo: Schemas['StepOut']['photo']
  looks_at: Schemas['Where'][]
  picture: Schemas['StepOut']['picture']
  picture_words: string
  /** What goes wrong without it; nothing in plans that were made before it was told. */
  why: string
  asks: Ask[]
  recalls: Ask[]
  told: string
  done: Mark | null
  laps: Lap[]
  resting_until: string | null
}

/** One head of the job, as it stands. */
export interface Head {
  side: Side
  new_head: string
  old_head: string
  reason: string
  rods: number
  lost: number[]
  beside_bed: number[]
  beside_port: number[]
  pairs: number[][]
  tapping_order: number[]
  pattern_note: string
  shelf: string
  left: number | null
  target_hz: number | null
  aim_hz: number | null
  above_cents: number
  target_note: string
  target_words: string
  settling_words: string
  uneven: Uneven
  uneven_words: string
  reference: number | null
  tally: { rod: number; turns_32: number }[] | null
}

export interface Finding extends Mark {
  finding: string
  degree: number
  side: string
  rod: number | null
  note: string
  step: string
  put_right: boolean
}

/** A job as it stands: the server's plan and log with this device's own entries, folded. */
export interface Bench extends Omit<Answer, 'plan' | 'log' | 'figures' | 'heads' | 'anew'> {
  steps: Step[]
  heads: Head[]
  /** The head of the step in hand; of a step about none, the first. */
  head: Head
  means: Means
  by: { up: Cadence; down: Cadence }
  found: Finding[]
  undo: { event: string; words: string }[]
  notes: string[]
}
