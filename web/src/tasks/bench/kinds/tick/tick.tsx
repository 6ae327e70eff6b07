import type { Act } from '../../Actions'
import type { Step } from '../../log/types'
import { doneAct, NO_ACTS, SPACE, type Given, type KindView } from '../kind'
import { TickPanel } from './TickPanel'

/** What must be known before the step is done; a caution that is only to be read is one press of the big button. */
function firstAct({ enter }: Given, step: Step): Act | null {
  const open = step.asks.find((each) => each.needed && !each.values.length)
  if (!open) return null
  const [only, ...others] = open.options
  if (!only || others.length)
    return { words: `First: ${open.words.toLowerCase()}?`, key: SPACE, run: () => {}, off: true }
  const run = () =>
    enter({ kind: 'answer', step: step.id, question: open.name, values: [only.value], unit: open.unit })
  return { words: `Read: ${only.words}`, key: SPACE, run }
}

/** Something to do and look at. */
export const tick: KindView = {
  next: (_, step) => ({ kind: 'at', step }),
  main: (given) => {
    if (given.next.kind !== 'at') return null
    return firstAct(given, given.next.step) ?? doneAct(given, given.next.step)
  },
  quiet: () => NO_ACTS,
  Panel: ({ next }) => (next.kind === 'at' ? <TickPanel step={next.step} /> : null),
}
