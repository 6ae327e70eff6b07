import { amountOf, turns32 } from '../../../../domain/turns'
import type { Act } from '../../Actions'
import type { Of } from '../../cursor'
import type { Cadence } from '../../log/types'
import { SPACE, type Given } from '../kind'

const AFTER: Record<Cadence, Cadence> = { rod: 'pair', pair: 'pass', pass: 'rod' }
const CADENCE: Record<Cadence, string> = { rod: 'Rod by rod', pair: 'Pair by pair', pass: 'Pass by pass' }

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
      ? [{ words: 'Turned otherwise', key: 'O', run: () => open('otherwise') }]
      : []),
    {
      words: next.group.length === 1 ? 'Skip' : 'Skip these',
      key: 'S',
      run: () => enter({ kind: 'turned', step: next.step.id, lap: next.lapNo, made: skipped }),
    },
  ]
}

/** The ways out of the straight path. */
export function passesQuiet(given: Given): Act[] {
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
