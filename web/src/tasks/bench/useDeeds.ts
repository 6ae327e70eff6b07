import { useState } from 'react'
import { useNavigate } from 'react-router'
import { flush, type Body } from '../../api/outbox'
import { amountOf, turns32 } from '../../domain/turns'
import { useKeys, type KeyMap } from '../../ui/useKeys'
import type { Act } from './Actions'
import { following, type Next } from './state/next'
import type { Bench } from './state/types'
import { useNow } from './useNow'
import { useReading, type Reading } from './useReading'

interface Given {
  bench: Bench
  next: Next
  enter: (body: Body) => void
  open: (sheet: 'why' | 'otherwise') => void
  mayChange: boolean
}

export interface Deeds {
  main: Act | null
  quiet: Act[]
  reading: Reading
  turned: (turns: number) => void
  target: (typed: string) => void
  closing: {
    reason: string
    onReason: (reason: string) => void
    check: boolean
    onCheck: (check: boolean) => void
  }
}

const SPACE = 'space'
const FINEST = 1 // thirty-second

/** The words and the deed of the big button. */
function mainAct(
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
      return {
        words: `Keep rod ${reading.rod ?? ''}`,
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
function quietActs({ bench, next, enter, open }: Given): Act[] {
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

const NO_ACTS: Act[] = []

/** The big button under every key a hand, an arrow or a pedal reaches; the quiet acts under their letters. */
function keysOf(main: Act | null, quiet: Act[], why: (() => void) | undefined): KeyMap {
  const go = main && !main.off ? main.run : undefined
  const keys: KeyMap = { ' ': go, ArrowRight: go, PageDown: go, Enter: go, w: why }
  for (const act of quiet) if (!act.off) keys[act.key.toLowerCase()] = act.run
  keys['ArrowLeft'] = keys['PageUp'] = keys['u']
  return keys
}

/** Everything that can be done now, and the keys that do it. */
export function useDeeds(given: Given): Deeds {
  const { bench, next, enter, open, mayChange } = given
  const navigate = useNavigate()
  const reading = useReading(bench, next, enter)
  const [reason, onReason] = useState(bench.reason)
  const [check, onCheck] = useState(true)
  const now = useNow(15_000)
  const leave = () => {
    void flush()
    void navigate('/')
  }
  const close = () => enter({ kind: 'close', reason, check })
  const main = mayChange || next.kind === 'closed' ? mainAct(given, reading, now, close, leave) : null
  const quiet = mayChange && next.kind !== 'closed' ? quietActs(given) : NO_ACTS
  const map = keysOf(main, quiet, next.kind === 'turn' && next.lap.plan ? () => open('why') : undefined)
  useKeys(map)
  const turned = (turns: number) =>
    next.kind === 'turn' &&
    enter({ kind: 'turned', step: next.step.id, lap: next.lapNo, rod: next.rod, turns_32: turns })
  return {
    main,
    quiet,
    reading,
    turned,
    target: (typed) => enter({ kind: 'target', typed }),
    closing: { reason, onReason, check, onCheck },
  }
}
