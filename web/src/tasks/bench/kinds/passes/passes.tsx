import type { Bench, Lap, Step } from '../../log/types'
import type { Next } from '../../cursor'
import { doneAct, type KindView, type PanelProps } from '../kind'
import { passesQuiet, turnMain } from './acts'
import { PassesDonePanel } from './PassesDonePanel'
import { TurnPanel } from './TurnPanel'
import { turning } from './turning'

function next(bench: Bench, step: Step): Next {
  const by = step.down ? bench.by.down : bench.by.up
  for (const [lapNo, lap] of step.laps.entries()) {
    const found = turning(bench, step, lap, lapNo, by)
    if (found) return found
  }
  const lapNo = step.laps.length - 1
  return { kind: 'passes-done', step, lap: step.laps[lapNo] as Lap, lapNo }
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
  quiet: passesQuiet,
}
