import { amountOf, turns32 } from '../../../../domain/turns'
import type { Act } from '../../Actions'
import type { Bench, Cadence, Lap, Step } from '../../log/types'
import type { Next, Of } from '../../cursor'
import { doneAct, SPACE, type Given, type KindView, type PanelProps } from '../kind'
import { PassesDonePanel } from './PassesDonePanel'
import { TurnPanel } from './TurnPanel'
import { turning } from './turning'

const AFTER: Record<Cadence, Cadence> = { rod: 'pair', pair: 'pass', pass: 'rod' }
const CADENCE: Record<Cadence, string> = { rod: 'Rod by rod', pair: 'Pair by pair', pass: 'Pass by pass' }

function next(bench: Bench, step: Step): Next {
  const by = step.down ? bench.by.down : bench.by.up
  for (const [lapNo, lap] of step.laps.entries()) {
    const found = turning(bench, step, lap, lapNo, by)
    if (found) return found
  }
  const lapNo = step.laps.length - 1
  return { kind: 'passes-done', step, lap: step.laps[lapNo] as Lap, lapNo }
}

/** What was made at each rod of the group in hand: what was asked, but for its exceptions. */
function made(given: Given, next: Of<'turn'>): { rod: number; turns_32: number }[] {
  const { exceptions, bench } = given
  return next.group.flatMap((rod) => {
    const owed = next.lap.rods.find((each) => each.rod === rod)?.owed_32 ?? 0
    const different = exceptions.of.get(rod)
    if (different === 'out') return []
    const touch = different === 'more' ? Math.sign(owed) * bench.step_32 : 0
    return [{ rod, turns_32: different === 'there' ? 0 : owed + touch }]
  })
}

function turnedWords(next: Of<'turn'>, out: number[]): string {
  if (next.group.length === 1) return next.then ? `Turned. Next: ${next.then}` : 'Turned. That was the last'
  if (out.length) return `Turned, all but ${out.join(', ')}`
  if (next.group.length === 2 && next.by === 'pair')
    return next.then ? `Both turned. Next: ${next.then}` : 'Both turned. That was the last'
  return next.lapNo + 1 < next.step.laps.length
    ? `All turned. Pass ${next.lapNo + 2} next`
    : 'All turned. That was the last pass'
}

/** The rods in hand are turned. Rounds of clearing use it too, rod by rod. */
export function turnMain(given: Given, next: Of<'turn'>): Act {
  const turns = made(given, next)
  const out = next.group.filter((rod) => given.exceptions.of.get(rod) === 'out')
  return {
    words: turnedWords(next, out),
    key: SPACE,
    off: !turns.length,
    run: () => given.enter({ kind: 'turned', step: next.step.id, lap: next.lapNo, made: turns }),
  }
}

export function turnQuiet({ enter, open }: Given, next: Of<'turn'>): Act[] {
  const skipped = next.group.map((rod) => ({ rod, turns_32: null }))
  return [
    ...(next.group.length === 1
      ? [{ words: 'Turned otherwise', key: 'E', run: () => open('otherwise') }]
      : []),
    {
      words: next.group.length === 1 ? 'Skip' : 'Skip these',
      key: 'S',
      run: () => enter({ kind: 'turned', step: next.step.id, lap: next.lapNo, made: skipped }),
    },
  ]
}

function quiet(given: Given): Act[] {
  const { next, enter } = given
  if (next.kind === 'turn') {
    const { down, id } = next.step
    const after = AFTER[next.by]
    return [
      ...turnQuiet(given, next),
      { words: CADENCE[after], key: 'C', run: () => enter({ kind: 'cadence', by: after, down }) },
      ...(down
        ? [{ words: 'Fingers turn them', key: 'F', run: () => enter({ kind: 'step_done', step: id }) }]
        : []),
    ]
  }
  if (next.kind !== 'passes-done' || !next.step.more_pass_32) return []
  const each_32 = next.step.more_pass_32
  return [
    {
      words: `One more pass, ${amountOf(turns32(each_32))}`,
      key: 'M',
      run: () => enter({ kind: 'pass_added', step: next.step.id, each_32 }),
    },
  ]
}

function PassesPanel({ bench, next, deeds, onWhy }: PanelProps) {
  if (next.kind === 'turn')
    return <TurnPanel bench={bench} next={next} exceptions={deeds.exceptions} onWhy={onWhy} />
  return next.kind === 'passes-done' ? <PassesDonePanel next={next} /> : null
}

/** The same small turn at each rod, pass after pass. */
export const passes: KindView = {
  Panel: PassesPanel,
  next,
  main: (given) => {
    if (given.next.kind === 'turn') return turnMain(given, given.next)
    return given.next.kind === 'passes-done' ? doneAct(given, given.next.step) : null
  },
  quiet,
}
