import type { BenchEntry, Entry } from '../../../api/outbox'
import { apply } from './apply'
import { begin, type Counted, type Folded } from './state'
import type { Answer, Bench } from './types'
import { view } from './view'
import { entryWords } from './words'

/** This device's entries the server has not told of yet, in the order they were made. */
function own(answer: Answer, entries: readonly Entry[]): Counted[] {
  const told = new Set(answer.log.map((each) => each.id))
  return entries
    .filter((each): each is BenchEntry => (each.log ?? 'bench') === 'bench' && each.job === answer.id)
    .filter(({ state, event }) => state !== 'refused' && !told.has(event.id))
    .map(({ event }) => ({
      id: event.id,
      by: '',
      at: event.made_at,
      device: event.device,
      body: event.body,
      words: entryWords(event.body),
    }))
}

/** The entries that count: applied and not undone, or in conflict and decided for. Undo is a filter, never a reversal. */
export function counting(answer: Answer, entries: readonly Entry[]): Counted[] {
  const mine = own(answer, entries)
  const bodies = [...answer.log, ...mine].map((each) => each.body)
  const undone = new Set(bodies.flatMap((body) => (body.kind === 'undo' ? [body.event] : [])))
  const settled = new Map(bodies.flatMap((body) => (body.kind === 'settle' ? [[body.event, body.take]] : [])))
  const stands = answer.log.filter(({ id, standing }) =>
    standing === 'conflict' ? settled.get(id) === 'second' : standing === 'applied',
  )
  return [...stands, ...mine].filter(
    ({ id, body }) => !undone.has(id) && body.kind !== 'undo' && body.kind !== 'settle',
  )
}

/** Where a job stands by the plan it began with, its log, and this device's own entries. */
export function foldState(answer: Answer, entries: readonly Entry[]): Folded {
  const state = begin(answer)
  for (const entry of counting(answer, entries)) apply(state, entry)
  return state
}

/** The same, with the server's figures beside it, for the screen. */
export const fold = (answer: Answer, entries: readonly Entry[]): Bench => view(foldState(answer, entries))
