import { useKeys } from '../../ui/useKeys'
import type { KnownRow } from './FoundRows'
import type { Look, Tick } from './log/fold'
import { inSight } from './Ticks'
import type { useLook } from './useLook'
import type { Said } from './useWalk'

type Act = (() => void) | undefined

/** What can be done with the drum in hand; what cannot be done now is not there. */
export interface LookActs {
  again: Act
  undo: Act
  out: Act
  notHere: Act
  done: Act
  photo: () => void
}

interface Wanted {
  hand: ReturnType<typeof useLook>
  look: Look
  known: readonly KnownRow[]
  goesOut: boolean
  mayChange: boolean
  say: (said: Said) => Promise<string>
  onDone: () => void
  photo: () => void
}

/** Keys 1 to 9 tick; while a rod is asked for, they and 0, -, = are rods. */
function digitKeys({ hand, mayChange }: Pick<Wanted, 'hand' | 'mayChange'>): Record<string, Act> {
  const ticked = inSight(hand.ticks, hand.all)
  const at = (n: number): Act => {
    if (hand.asked) return () => hand.touchRod(n + 1)
    return ticked[n] && n < 9 && mayChange ? () => hand.tick(ticked[n] as Tick) : undefined
  }
  return Object.fromEntries([...'1234567890-='].map((key, n) => [key, at(n)]))
}

/** Everything that can be done while a drum is looked at, and the keys that do it. */
export function useLookActs(wanted: Wanted): LookActs {
  const { hand, look, known, goesOut, mayChange, say, onDone, photo } = wanted
  const rows = known.flatMap((each) => (each.row === null ? [] : [each.row]))
  const [last] = look.own
  const acts: LookActs = {
    again: rows.length && mayChange ? () => void say({ kind: 'again', rows }) : undefined,
    undo: last && mayChange ? () => void say({ kind: 'taken_back', event: last }) : undefined,
    out: mayChange ? () => void say({ kind: 'goes_out', out: !goesOut }) : undefined,
    notHere: mayChange ? () => void say({ kind: 'not_here' }) : undefined,
    done: mayChange ? onDone : undefined,
    photo,
  }
  useKeys({
    ...digitKeys(wanted),
    ' ': acts.done,
    PageDown: acts.done,
    ArrowRight: () => hand.turn(1),
    ArrowLeft: () => hand.turn(-1),
    ArrowUp: () => hand.worse(1),
    ArrowDown: () => hand.worse(-1),
    Escape: hand.letGo,
    r: acts.again,
    u: acts.undo,
    m: () => hand.setAll(!hand.all),
    p: mayChange ? photo : undefined,
    g: acts.out,
    h: acts.notHere,
  })
  return acts
}
