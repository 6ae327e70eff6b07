import type { Schemas } from '../../../api/client'
import type { CalloutBody, CalloutEntry, Entry } from '../../../api/outbox'

export type Callout = Schemas['CallOutOut']
export type Book = Schemas['BookOut']
export type Step = Schemas['CallOutStep']
export type Drum = Schemas['CallOutDrumOut']
export type Tick = Schemas['TickOffered']

export interface Entered {
  id: string
  by: string
  device: string
  at: string
  body: CalloutBody
}

/** Where a call-out stands; the core says the same of the same log (drumwork.callout.fold). */
export interface Standing {
  ticks: Set<string>
  looked: Set<string>
  bag: Map<string, number>
  clock: { at: number; minutes: number } | null
  hand: Map<string, { step: string; at: number }>
  done: Map<string, Entered>
  skipped: Set<string>
  cannot: Map<string, Entered>
  words: Map<string, string>
  over: Entered | null
  reported: Entered | null
  answered: Entered | null
}

export const tickKey = (drum: string, finding: string, side = '', rod: number | null = null): string =>
  `${drum}|${finding}|${side}|${rod ?? ''}`

const keyOf = (body: { drum: string; finding: string; side?: string | null; rod?: number | null }): string =>
  tickKey(body.drum, body.finding, body.side ?? '', body.rod ?? null)

/** What the server has told and, after it, what this device has entered since. */
export function entered(callout: Callout, entries: readonly Entry[]): Entered[] {
  const told = new Set(callout.events.map((each) => each.id))
  const mine = entries
    .filter((each): each is CalloutEntry => each.log === 'callout' && each.job === callout.id)
    .filter(({ state, event }) => state !== 'refused' && !told.has(event.id))
    .map(({ event }) => ({ id: event.id, by: '', device: event.device, at: event.made_at, body: event.body }))
  return [...callout.events, ...mine]
}

type Apply = (stands: Standing, each: Entered) => void
type Of<K extends CalloutBody['kind']> = Extract<CalloutBody, { kind: K }>

const about =
  <K extends CalloutBody['kind']>(act: (stands: Standing, body: Of<K>, each: Entered) => void): Apply =>
  (stands, each) =>
    act(stands, each.body as Of<K>, each)

const APPLY: Record<CalloutBody['kind'], Apply> = {
  clock: about<'clock'>((stands, { minutes }, each) => {
    stands.clock = { at: Date.parse(each.at), minutes }
    stands.over = null
  }),
  bagged: about<'bagged'>((stands, { part, count }) => void stands.bag.set(part, count)),
  ticked: about<'ticked'>((stands, body) => {
    stands.ticks.add(keyOf(body))
    stands.looked.add(body.drum)
  }),
  not_so: about<'not_so'>((stands, body) => void stands.ticks.delete(keyOf(body))),
  fine: about<'fine'>((stands, { drum }) => void stands.looked.add(drum)),
  took: about<'took'>((stands, { step }, each) => {
    stands.hand.set(each.device, { step, at: Date.parse(each.at) })
  }),
  done: about<'done'>((stands, { step }, each) => {
    if (!stands.done.has(step)) stands.done.set(step, each)
    stands.cannot.delete(step)
    stands.skipped.delete(step)
  }),
  skipped: about<'skipped'>((stands, { step }) => {
    if (!stands.done.has(step)) stands.skipped.add(step)
  }),
  cannot: about<'cannot'>((stands, { step }, each) => {
    if (stands.done.has(step)) return
    stands.cannot.set(step, each)
    stands.skipped.delete(step)
  }),
  open_again: about<'open_again'>((stands, { step }) => {
    stands.done.delete(step)
    stands.cannot.delete(step)
    stands.skipped.delete(step)
  }),
  worded: about<'worded'>((stands, { drum, words }) => void stands.words.set(drum, words)),
  over: (stands, each) => {
    stands.over = each
  },
  reported: (stands, each) => {
    stands.reported = each
    stands.answered = null
  },
  answered: (stands, each) => {
    stands.answered = each
  },
}

/** Where it stands after these entries, in their order. One of a newer server’s kinds says nothing here. */
export function fold(book: Book, log: readonly Entered[]): Standing {
  const stands: Standing = {
    ticks: new Set(book.known),
    looked: new Set(),
    bag: new Map(),
    clock: null,
    hand: new Map(),
    done: new Map(),
    skipped: new Set(),
    cannot: new Map(),
    words: new Map(),
    over: null,
    reported: null,
    answered: null,
  }
  for (const each of log) (APPLY[each.body.kind] as Apply | undefined)?.(stands, each)
  return stands
}

/** Every step by its id; the same step stands in the book once for each tick that may ask for it. */
export const stepsById = (book: Book): Map<string, Step> => new Map(book.steps.map((step) => [step.id, step]))

/** What is so and not yet seen to, with what the bag means and who is short of a rod. */
function soNow(book: Book, stands: Standing): { so: Set<string>; every: Set<string> } {
  const so = new Set(stands.ticks)
  for (const step of book.steps) if (stands.done.has(step.id)) for (const key of step.mends) so.delete(key)
  const every = new Set(stands.ticks)
  for (const key of stands.ticks) {
    const [drum, finding, side] = key.split('|')
    if (finding === 'rod-missing' && side === 'batter') every.add(`short:${drum}`)
  }
  for (const [part, count] of stands.bag)
    if (count > 0) {
      so.add(`bag:${part}`)
      every.add(`bag:${part}`)
    }
  return { so, every }
}

/** What may still be done; what was skipped comes back when nothing else is left. */
export function openSteps(book: Book, stands: Standing): Step[] {
  const { so, every } = soNow(book, stands)
  const found = new Map<string, Step>()
  for (const step of book.steps) {
    if (stands.done.has(step.id) || stands.cannot.has(step.id) || found.has(step.id)) continue
    if (step.when.every((key) => so.has(key)) && !step.unless.some((key) => every.has(key)))
      found.set(step.id, step)
  }
  const kept = [...found.values()].filter((step) => !stands.skipped.has(step.id))
  return kept.length ? kept : [...found.values()]
}

const isOnce = (part: string): boolean => part.startsWith('one:') || part.startsWith('giver:')

/** What there is of every part: the bag’s, what is there once, less what was used. */
export function partsLeft(book: Book, stands: Standing): Map<string, number> {
  const left = new Map(stands.bag)
  for (const step of book.steps) for (const part of step.uses) if (isOnce(part)) left.set(part, 1)
  for (const step of stepsById(book).values())
    if (stands.done.has(step.id)) for (const part of step.uses) left.set(part, (left.get(part) ?? 0) - 1)
  for (const [part, count] of left) if (count < 0) left.set(part, 0)
  return left
}

/** Until the show; none before the clock was set. */
export function minutesLeft(stands: Standing, now: number): number {
  if (!stands.clock || stands.over) return 0
  const { at, minutes } = stands.clock
  return Math.min(minutes, Math.max(0, minutes - (now - at) / 60_000)) // no device’s clock makes it more
}
