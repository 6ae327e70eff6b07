import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { keys } from '../../api/keys'
import { flush, type Body } from '../../api/outbox'
import { useKeys, type KeyMap } from '../../ui/useKeys'
import type { Act } from './Actions'
import { KINDS } from './kinds'
import { JUDGEMENTS } from './kinds/clear/EarButtons'
import { useReading } from './kinds/clear/useReading'
import { NO_ACTS, SPACE, type Deeds, type Given } from './kinds/kind'
import { useExceptions } from './kinds/passes/useExceptions'
import type { Bench } from './log/types'
import type { Next } from './cursor'
import { useNow } from '../../ui/useNow'

interface Wanted {
  bench: Bench
  next: Next
  enter: (body: Body) => void
  open: Given['open']
  mayChange: boolean
}

/** The big button under every key a hand, an arrow or a pedal reaches; the quiet acts under their letters. */
function keysOf(main: Act | null, quiet: Act[], why: (() => void) | undefined): KeyMap {
  const go = main && !main.off ? main.run : undefined
  const keys: KeyMap = { ' ': go, ArrowRight: go, PageDown: go, Enter: go, w: why }
  for (const act of quiet) if (!act.off) keys[act.key.toLowerCase()] = act.run
  keys['ArrowLeft'] = keys['PageUp'] = keys['u']
  return keys
}

function actsOf(given: Given): { main: Act | null; quiet: Act[] } {
  const { bench, next, enter, open, leave, mayChange } = given
  if (next.kind === 'closed')
    return { main: { words: 'Back to what is owed', key: SPACE, run: leave }, quiet: NO_ACTS }
  if (!mayChange) return { main: null, quiet: NO_ACTS }
  const view = KINDS[next.step.kind]
  const last = bench.undo[0]
  const undo = {
    words: 'Undo',
    key: 'U',
    run: () => last && enter({ kind: 'undo', event: last.event }),
    off: !last,
  }
  const found = { words: 'Something found', key: 'X', run: () => open('found') }
  return { main: view.main(given), quiet: [undo, ...view.quiet(given), found] }
}

/** Judgements by ear and listening have keys of their own while rods are read. */
function readingKeys({ bench, next, reading, enter, mayChange }: Given): KeyMap {
  if (!mayChange || (next.kind !== 'read' && !reading.tapping)) return {}
  if (bench.means === 'pitch')
    return { l: reading.listening.state === 'off' ? reading.listening.start : reading.listening.stop }
  if (bench.means !== 'ear' || next.kind !== 'read') return {}
  const { step, lapNo } = next
  return Object.fromEntries(
    JUDGEMENTS.map(([judged, , key]) => [
      key,
      () =>
        reading.rod === null
          ? enter({ kind: 'whole', step: step.id, lap: lapNo, judged })
          : reading.judge(judged),
    ]),
  )
}

/** Everything that can be done now, and the keys that do it. */
export function useDeeds({ bench, next, enter, open, mayChange }: Wanted): Deeds {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const reading = useReading(bench, next, enter)
  const exceptions = useExceptions(next)
  const [reason, onReason] = useState(bench.head.reason)
  const [check, onCheck] = useState(true)
  const now = useNow(15_000)
  const leave = () => {
    void flush().finally(() => queries.invalidateQueries({ queryKey: keys.today }))
    void navigate('/')
  }
  const close = () => enter({ kind: 'close', reason, check })
  const given: Given = { bench, next, enter, open, mayChange, reading, exceptions, now, close, leave }
  const { main, quiet } = actsOf(given)
  const planned = 'lap' in next && next.lap.plan && next.kind !== 'read'
  useKeys({ ...keysOf(main, quiet, planned ? () => open('why') : undefined), ...readingKeys(given) })
  const side = bench.heads.length > 1 && next.kind !== 'closed' ? next.step.side : null
  return {
    main,
    quiet,
    reading,
    exceptions,
    turned: (turns_32) =>
      next.kind === 'turn' &&
      enter({ kind: 'turned', step: next.step.id, lap: next.lapNo, made: [{ rod: next.rod, turns_32 }] }),
    target: (typed) => enter({ kind: 'target', typed, side }),
    means: (means, reference) => enter({ kind: 'means', means, reference: reference ?? null }),
    whole: (judged) =>
      next.kind === 'read' && enter({ kind: 'whole', step: next.step.id, lap: next.lapNo, judged }),
    uneven: (what, start) => enter({ kind: 'uneven', what, start, side }),
    closing: { reason, onReason, check, onCheck },
  }
}
