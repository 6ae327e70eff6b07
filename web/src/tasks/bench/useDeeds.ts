import { useState } from 'react'
import { useNavigate } from 'react-router'
import { flush } from '../../api/outbox'
import { useKeys, type KeyMap } from '../../ui/useKeys'
import type { Act } from './Actions'
import { mainAct, quietActs, type Given } from './acts'
import { JUDGEMENTS, type Judgement } from './panels/EarButtons'
import type { Means } from './panels/MeansLine'
import type { Uneven } from './panels/ReadPanel'
import { useNow } from './useNow'
import { useReading, type Reading } from './useReading'

export interface Deeds {
  main: Act | null
  quiet: Act[]
  reading: Reading
  turned: (turns: number) => void
  target: (typed: string) => void
  means: (means: Means, reference?: number) => void
  whole: (judged: Judgement) => void
  uneven: (what: Uneven, start: number) => void
  closing: {
    reason: string
    onReason: (reason: string) => void
    check: boolean
    onCheck: (check: boolean) => void
  }
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
  const quiet = mayChange && next.kind !== 'closed' ? quietActs(given, reading) : NO_ACTS
  const planned = 'lap' in next && next.lap.plan && next.kind !== 'read'
  const map = keysOf(main, quiet, planned ? () => open('why') : undefined)
  if (mayChange && next.kind === 'read' && bench.means === 'pitch')
    map['l'] = reading.listening.state === 'off' ? reading.listening.start : reading.listening.stop
  if (mayChange && next.kind === 'read' && bench.means === 'ear')
    for (const [judged, , key] of JUDGEMENTS)
      map[key] = () =>
        reading.rod === null ? enter({ kind: 'whole', lap: next.lapNo, judged }) : reading.judge(judged)
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
    means: (means, reference) => enter({ kind: 'means', means, reference: reference ?? null }),
    whole: (judged) => next.kind === 'read' && enter({ kind: 'whole', lap: next.lapNo, judged }),
    uneven: (what, start) => enter({ kind: 'uneven', what, start }),
    closing: { reason, onReason, check, onCheck },
  }
}
