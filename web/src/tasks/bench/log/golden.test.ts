import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { Entry } from '../../../api/outbox'
import { foldState } from './fold'
import { lostSince, owedIn, shownSteps, type Folded } from './state'
import type { Answer } from './types'
import { tallyOf, view } from './view'

interface Case {
  plan: number
  log: Answer['log']
  plans: { entry: string; rods: { rod: number; turns_32: number }[] }[]
  taps: { planned_taps: string[]; last_taps: string[] }
  anew: Answer['anew']
  stands: Record<string, unknown>
}
interface Golden {
  plans: {
    steps: Answer['plan']
    heads: Answer['heads']
    step_32: number
    cadence: string
    means: string
    slacken_by: string
  }[]
  cases: Case[]
}

// Made by tools/golden_logs.py from the core's own fold; `./test --web` makes them anew.
const golden = JSON.parse(readFileSync('../.data/golden.json', 'utf8')) as Golden

function answerOf({ plan, log, plans, taps, anew }: Case): Answer {
  const of = golden.plans[plan]
  return {
    id: 'j',
    plan: of?.steps,
    heads: of?.heads,
    step_32: of?.step_32,
    cadence: of?.cadence,
    means: of?.means,
    slacken_by: of?.slacken_by,
    state: 'open',
    log,
    figures: { readings: [], plans, rounds: [], pitches: [], uneven: [], told: [], ...taps },
    conflicts: [],
    anew,
  } as unknown as Answer
}

const object = <V>(map: Iterable<readonly [string | number, V]>): Record<string, V> => Object.fromEntries(map)
const ids = (map: ReadonlyMap<number, { event: string }>) =>
  object([...map].map(([rod, { event }]) => [rod, event]))

function stands(state: Folded): Record<string, unknown> {
  const bench = view(state)
  return {
    shown: shownSteps(state).map((step) => step.id),
    points: object(bench.steps.map((step) => [step.id, step.points])),
    tools: object(bench.steps.map((step) => [step.id, step.tools])),
    done: object([...state.done].map(([step, { event }]) => [step, event])),
    laps: object(
      [...state.laps].map(([id, laps]) => {
        const gone = lostSince(state, state.answer.plan.find((step) => step.id === id)?.side ?? null)
        return [
          id,
          laps.map((lap) => ({
            order: lap.order.filter((rod) => !gone.has(rod)),
            each: lap.each,
            owed: owedIn(lap, gone),
            turned: object([...lap.turned].map(([rod, made]) => [rod, made.turns_32])),
            readings: object([...lap.readings].map(([rod, read]) => [rod, [read.event, read.typed]])),
            ear: ids(lap.ear),
            numbers: ids(lap.numbers),
            whole: lap.whole,
            centre: lap.centre?.typed ?? '',
            plan: lap.plan?.event ?? null,
            left: lap.left?.event ?? null,
            between: lap.between.map(({ rod, event }) => [rod, event]),
          })),
        ]
      }),
    ),
    rests: object([...state.rests].map(([step, at]) => [step, new Date(at).getTime() / 1000])),
    targets: object([...state.targets].map(([side, { typed }]) => [side, typed])),
    uneven: object([...state.uneven].map(([side, { what }]) => [side, what])),
    step_32: state.step_32,
    means: state.means,
    reference: object(
      bench.heads.map(({ side }) => [
        side,
        view({ ...state, means: 'ear' }).heads.find((h) => h.side === side)?.reference,
      ]),
    ),
    by: state.by,
    found: object([...state.found].map(([id, { put_right }]) => [id, put_right])),
    answers: object([...state.answers].map(([name, { event, values }]) => [name, [event, values]])),
    notes: state.notes,
    closed: state.closed,
    live: state.live.map((each) => each.id),
    tally: object(
      bench.heads.map(({ side }) => {
        const tally = tallyOf(state, side)
        return [side, tally && object(tally)]
      }),
    ),
  }
}

/** The same log as this device would hold it before the server has seen the last part of it. */
function unsent(answer: Answer, from: number): [Answer, Entry[]] {
  const late = answer.log.slice(from)
  const entries = late.map((each): Entry => ({
    order: each.seq,
    job: 'j',
    user: 'ines',
    event: { id: each.id, device: each.device, seen: from, made_at: each.at, v: 2, body: each.body },
    state: 'waiting',
    message: '',
    seq: null,
  }))
  return [{ ...answer, log: answer.log.slice(0, from) }, entries]
}

describe('the fold on the device', () => {
  it('has at least five hundred logs to be held against', () => {
    expect(golden.cases.length).toBeGreaterThanOrEqual(500)
  })

  it('says where a job stands as the core does, log for log', () => {
    for (const each of golden.cases) expect(stands(foldState(answerOf(each), []))).toEqual(each.stands)
  })

  it('shows as owed on the ladder what a pass asks of a rod, and nothing at rods it leaves alone', () => {
    let asked = 0
    for (const each of golden.cases) {
      const state = foldState(answerOf(each), [])
      for (const step of view(state).steps)
        for (const [n, lap] of step.laps.entries()) {
          const raw = state.laps.get(step.id)?.[n]
          if (!raw || raw.each === null) continue
          const owed = lap.rods.filter((rod) => rod.owed_32 && !rod.turned).map((rod) => rod.rod)
          expect(owed.sort()).toEqual(owedIn(raw, lostSince(state, step.side)).sort())
          asked++
        }
    }
    expect(asked).toBeGreaterThan(500)
  })

  it('says the same while the last entries are still on their way', () => {
    for (const each of golden.cases) {
      if (each.log.some((row) => row.standing !== 'applied')) continue // what another device did cannot be known
      const answer = answerOf(each)
      for (const from of [0, Math.floor(answer.log.length / 2), answer.log.length - 1]) {
        const { points: _p, tools: _t, ...now } = stands(foldState(...unsent(answer, Math.max(0, from))))
        const { points: _q, tools: _u, ...then } = each.stands
        expect(now).toEqual(then)
      }
    }
  })
})
