import type { Body } from '../../api/outbox'
import { amountOf, turns32 } from '../../domain/turns'
import type { Act } from './Actions'
import { following, type Next } from './state/next'
import type { Bench } from './state/types'
import type { Reading } from './useReading'

export interface Given {
  bench: Bench
  next: Next
  enter: (body: Body) => void
  open: (sheet: 'why' | 'otherwise') => void
  mayChange: boolean
}

const SPACE = 'space'
const FINEST = 1 // thirty-second

/** The words and the deed of the big button. */
export function mainAct(
  { bench, next, enter }: Given,
  reading: Reading,
  now: number,
  close: () => void,
  leave: () => void,
): Act | null {
  switch (next.kind) {
    case 'turn':
      return {
        words: next.then ? `Turned. Next: ${next.then}` : 'Turned. That was the last',
        key: SPACE,
        run: () =>
          enter({ kind: 'turned', step: next.step.id, lap: next.lapNo, rod: next.rod, turns_32: next.owed }),
      }
    case 'read':
      if (reading.allRead)
        return {
          words: 'Work out the turns',
          key: SPACE,
          run: () => enter({ kind: 'plan', lap: next.lapNo }),
        }
      if (bench.means === 'ear')
        return {
          words: `Level with rod ${bench.reference ?? 1}`,
          key: SPACE,
          run: () => reading.judge('level'),
        }
      if (bench.means === 'pitch' && !reading.typed.trim() && reading.listening.ready)
        return { words: 'Listen, hands free', key: SPACE, run: reading.listening.start }
      return {
        words: reading.middle ? 'Keep the middle' : `Keep rod ${reading.rod ?? ''}`,
        key: 'enter',
        run: reading.keep,
        off: !reading.typed.trim(),
      }
    case 'stuck':
      if (bench.step_32 === FINEST) return { ...doneAct(bench, next.step, enter), words: 'Leave it so' }
      return {
        words: `Work in 1/32 turns`,
        key: SPACE,
        run: () => {
          enter({ kind: 'step_size', step_32: FINEST })
          enter({ kind: 'plan', lap: next.lapNo })
        },
      }
    case 'cleared':
      if (!reading.gauging) return doneAct(bench, next.step, enter)
      if (reading.rod !== null)
        return {
          words: `Keep rod ${reading.rod}`,
          key: 'enter',
          run: reading.keep,
          off: !reading.typed.trim(),
        }
      return {
        words: 'Judge the pull',
        key: SPACE,
        run: () => {
          enter({ kind: 'plan', lap: next.lapNo })
          reading.gauge(false)
        },
      }
    case 'rest':
      if (!bench.resting_until)
        return {
          words: `Rest it ${next.step.minutes} minutes`,
          key: SPACE,
          run: () => enter({ kind: 'rest', minutes: next.step.minutes }),
        }
      if (new Date(bench.resting_until).getTime() > now)
        return { words: 'To what is owed', key: SPACE, run: leave }
      return doneAct(bench, next.step, enter)
    case 'close':
      return { words: 'Close the job', key: SPACE, run: close }
    case 'closed':
      return { words: 'Back to what is owed', key: SPACE, run: leave }
    default:
      return doneAct(bench, next.step, enter)
  }
}

function doneAct(bench: Bench, step: { id: string }, enter: (body: Body) => void): Act {
  const after = following(
    bench,
    bench.steps.find((each) => each.id === step.id) ?? (bench.steps[0] as Bench['steps'][number]),
  )
  return {
    words: after ? `Done. Next: ${after.title.toLowerCase()}` : 'Done',
    key: SPACE,
    run: () => enter({ kind: 'step_done', step: step.id }),
  }
}

/** The ways out of the straight path. */
export function quietActs({ bench, next, enter, open }: Given, reading: Reading): Act[] {
  const last = bench.undo[0]
  const acts: Act[] = [
    { words: 'Undo', key: 'U', run: () => last && enter({ kind: 'undo', event: last.event }), off: !last },
  ]
  if (next.kind === 'turn') {
    acts.push({ words: 'Turned otherwise', key: 'E', run: () => open('otherwise') })
    acts.push({
      words: 'Skip',
      key: 'S',
      run: () => enter({ kind: 'skipped', step: next.step.id, lap: next.lapNo, rod: next.rod }),
    })
    if (next.lap.each_32 !== null && next.lap.each_32 < 0)
      acts.push({
        words: 'Fingers turn them',
        key: 'F',
        run: () => enter({ kind: 'step_done', step: next.step.id }),
      })
  }
  if (next.kind === 'passes-done' && next.step.more_pass_32) {
    const each = next.step.more_pass_32
    acts.push({
      words: `One more pass, ${amountOf(turns32(each))}`,
      key: 'M',
      run: () => enter({ kind: 'pass_added', step: next.step.id, each_32: each }),
    })
  }
  if (next.kind === 'cleared' && next.lap.plan?.means === 'pitch')
    acts.push(
      reading.gauging
        ? { words: 'Leave the gauge', key: 'G', run: () => reading.gauge(false) }
        : { words: 'Gauge each rod too', key: 'G', run: () => reading.gauge(true) },
    )
  if (next.kind === 'read') acts.push(...hearingActs({ bench, next }, reading))
  if (next.kind === 'read' && next.lapNo > 0)
    acts.push({
      words: 'Even enough as it is',
      key: 'F',
      run: () => enter({ kind: 'step_done', step: next.step.id }),
    })
  if (next.kind === 'stuck') {
    const { plan } = next.lap
    acts.push({
      words: 'Tap round again',
      key: 'R',
      run: () => plan && enter({ kind: 'undo', event: plan.event }),
    })
    if (bench.step_32 !== FINEST)
      acts.push({
        words: 'Leave it so',
        key: 'F',
        run: () => enter({ kind: 'step_done', step: next.step.id }),
      })
  }
  if (next.kind === 'rest')
    acts.push({
      words: 'Rested enough',
      key: 'F',
      run: () => enter({ kind: 'step_done', step: next.step.id }),
    })
  return acts
}

/** What can be heard beside the rods, and putting a round right that was tapped in another order. */
function hearingActs({ bench, next }: Pick<Given, 'bench' | 'next'>, reading: Reading): Act[] {
  if (next.kind !== 'read' || bench.means !== 'pitch') return []
  const acts: Act[] = [
    reading.middle
      ? { words: 'Back to the rods', key: 'I', run: () => reading.toMiddle(false) }
      : { words: 'Tap the middle', key: 'I', run: () => reading.toMiddle(true) },
  ]
  if (reading.tapped) acts.push({ words: 'Put the readings right', key: 'O', run: reading.putRight })
  return acts
}
