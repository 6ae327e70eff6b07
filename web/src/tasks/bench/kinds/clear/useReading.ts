import { useEffect, useEffectEvent, useState } from 'react'
import type { Body } from '../../../../api/outbox'
import { useListening } from './listening/useListening'
import { draftKey, keepFor, kept, otherKey, rememberTurnAndTap, RINGS, turnsAndTaps } from './kept'
import { doubtAbout, doubtsOf, typedOf } from './doubts'
import { readingProblem } from './readingProblem'
import { useTapped } from './useTapped'
import type { Next } from '../../cursor'
import type { Bench } from '../../log/types'
import type { Misread } from '../../../../domain/misread'
import type { Doubt, Reading } from './reading'

type Of<K extends Body['kind']> = Extract<Body, { kind: K }>

/** A large move is made alike at every rod whatever they read meanwhile, and by ear rods are compared. */
function mayTap(bench: Bench, next: Next): next is Extract<Next, { kind: 'turn' }> {
  if (next.kind !== 'turn' || next.step.kind !== 'clear' || bench.means === 'ear') return false
  return next.lap.plan?.approach !== 'equal-first' && next.lap.plan?.means === bench.means
}

/** A last tap may still be on its way, or the round have been tapped in another order. */
const NO_MORE_MS = 4000
/** So long a server may take to say what is left; without one the round goes on as it was planned. */
const WORKING_MS = 2500

/** The reading being typed. Half a number survives a reload too. */
export function useReading(bench: Bench, next: Next, enter: (body: Body) => void): Reading {
  const [chosen, setChosen] = useState<number | null>(null)
  const [typed, write] = useState(() => kept(draftKey(bench.id)))
  const [problem, setProblem] = useState('')
  const [pending, setPending] = useState<Misread | null>(null)
  const [beside, gauge] = useState(false)
  const [centre, toMiddle] = useState(false)
  const [otherRings, setOtherRings] = useState(() => kept(otherKey(bench.id)) === RINGS)
  const middle = centre && next.kind === 'read' && bench.means === 'pitch'
  const gauging = beside && next.kind === 'cleared'
  const ungauged =
    next.kind === 'cleared'
      ? bench.head.tapping_order.find((each) => !next.lap.rods.find((one) => one.rod === each)?.number)
      : undefined
  const [turnAndTap, together] = useState(turnsAndTaps)
  const tapping = turnAndTap && mayTap(bench, next)
  const open = tapping ? next.lap.tap_open : ''
  const [waited, setWaited] = useState('')
  useEffect(() => {
    if (!open) return
    const timer = setTimeout(() => setWaited(open), WORKING_MS)
    return () => clearTimeout(timer)
  }, [open])
  const working = open !== '' && open !== waited
  const owed = tapping && next.kind === 'turn' ? next.owed : 0
  const rod =
    next.kind === 'read' || tapping
      ? (chosen ?? ('rod' in next ? next.rod : null))
      : gauging
        ? (chosen ?? ungauged ?? null)
        : null
  const setTyped = (text: string) => {
    write(text)
    setProblem('')
    setPending(null)
    keepFor(draftKey(bench.id), text)
  }
  const muteOther = (on: boolean) => {
    setOtherRings(!on)
    keepFor(otherKey(bench.id), on ? '' : RINGS)
  }
  const choose = (number: number, text?: string) => {
    const before = next.kind === 'read' ? next.lap.rods.find((each) => each.rod === number)?.reading : null
    setChosen(number)
    setTyped(text ?? before?.typed ?? '')
  }
  const step = (by: number) => {
    const order = bench.head.tapping_order
    const at = rod === null ? 0 : order.indexOf(rod) + by
    const to = order[(at + order.length) % order.length]
    if (to !== undefined) choose(to)
  }
  const setTurnAndTap = (on: boolean) => {
    together(on)
    rememberTurnAndTap(on)
    setTyped('')
  }
  /** The rod in hand was turned as asked; any other is only read. */
  const tap = (at: number, what: Pick<Of<'tapped'>, 'typed' | 'partials' | 'tap' | 'sure' | 'simulated'>) => {
    if (next.kind !== 'turn') return
    const turns_32 = at === next.rod ? owed : null
    const means = bench.means
    enter({ kind: 'tapped', step: next.step.id, lap: next.lapNo, rod: at, turns_32, means, ...what })
    setChosen(null)
    setTyped('')
  }
  const keep = () => {
    if (rod === null && !middle) return
    const wrong = readingProblem(typed, gauging ? 'gauge' : bench.means)
    if (wrong) {
      setProblem(wrong)
      return
    }
    const asked = middle || rod === null ? undefined : doubtAbout(bench, next, rod, typed)
    if (asked) setPending(asked)
    else judge(typed.trim())
  }
  const doubts = pending ? [pending] : next.kind === 'read' ? doubtsOf(bench, next) : []
  const writeDown = (
    { step: { id }, lapNo }: Extract<Next, { lapNo: number }>,
    at: number,
    what: Pick<Of<'reading'>, 'typed' | 'means'> & Partial<Of<'reading'>>,
  ) =>
    enter({
      kind: 'reading',
      step: id,
      lap: lapNo,
      rod: at,
      partials: [],
      tap: '',
      sure: false,
      simulated: false,
      ...what,
    })
  const judge = (what: string, sure = false) => {
    if (!('lapNo' in next)) return
    if (middle) {
      enter({ kind: 'centre', step: next.step.id, lap: next.lapNo, typed: what, simulated: false })
      toMiddle(false)
      setTyped('')
      return
    }
    if (rod === null) return
    if (tapping) {
      tap(rod, { typed: what, partials: [], tap: '', sure, simulated: false })
      return
    }
    writeDown(next, rod, { typed: what, means: gauging ? 'gauge' : bench.means, sure })
    setChosen(null)
    setTyped('')
  }
  /** What was asked about is put right, or is so. */
  const settle = (of: Misread, what: string, sure: boolean) => {
    if (pending) {
      judge(what, sure)
      return
    }
    if (next.kind === 'read') writeDown(next, of.rod, { typed: what, means: bench.means, sure })
  }
  const doubtOf = (of: Misread): Doubt => ({
    of,
    pending: pending !== null,
    put: (value) => settle(of, String(value), false),
    again: () => choose(of.rod, ''),
    isSo: () => settle(of, pending ? typed.trim() : typedOf(next, of), true),
  })
  const doubt = doubts[0] ? doubtOf(doubts[0]) : null
  const listening = useListening({
    job: bench.id,
    step: next.kind === 'read' || tapping ? next.step.id : '',
    lap: next.kind === 'read' || next.kind === 'turn' ? next.lapNo : 0,
    rod: bench.means === 'pitch' && (next.kind === 'read' || (tapping && !working)) ? rod : null,
    turns_32: tapping ? (rod === next.rod ? owed : 0) : null,
    between: tapping ? next.lap.taps_between : 0,
    rods: bench.head.tapping_order,
    count: bench.head.rods,
    middle,
    otherMuted: !otherRings,
    keep: (heardRod, { id, typed: heard, partials, simulated }) => {
      if (tapping && heard) tap(heardRod, { typed: heard, partials, tap: id, sure: false, simulated })
      if (next.kind !== 'read' || !heard) return
      writeDown(next, heardRod, { typed: heard, means: 'pitch', partials, tap: id, simulated })
      setChosen(null)
    },
    keepMiddle: ({ typed: heard, simulated }) => {
      if (next.kind !== 'read' || !heard) return
      enter({ kind: 'centre', step: next.step.id, lap: next.lapNo, typed: heard, simulated })
      toMiddle(false)
    },
  })
  const tapped = useTapped(next)
  const allRead = next.kind === 'read' && next.rod === null && chosen === null && !middle
  const ears = listening.state === 'on' || listening.state === 'simulated'
  // Once a round: whoever takes its turns back wants to read it again first.
  const [workedOut, setWorkedOut] = useState('')
  const round = next.kind === 'read' ? `${next.step.id} ${next.lapNo}` : ''
  const goesOn =
    turnAndTap &&
    allRead &&
    !next.lap.asked &&
    !doubt &&
    ears &&
    !tapped &&
    bench.means === 'pitch' &&
    round !== workedOut
  const workOut = useEffectEvent(() => {
    if (next.kind !== 'read') return
    setWorkedOut(round)
    enter({ kind: 'plan', step: next.step.id, lap: next.lapNo })
  })
  useEffect(() => {
    if (!goesOn) return
    const timer = setTimeout(workOut, listening.state === 'simulated' ? 0 : NO_MORE_MS)
    return () => clearTimeout(timer)
  }, [goesOn, listening.state])
  const putRight = () => {
    if (tapped && next.kind === 'read')
      enter({ kind: 'order', step: next.step.id, lap: next.lapNo, moves: tapped.moves })
  }
  return {
    listening,
    rod,
    typed,
    problem,
    doubt,
    setTyped,
    choose,
    step,
    keep,
    judge,
    middle,
    toMiddle,
    otherMuted: !otherRings,
    muteOther,
    tapped,
    putRight,
    allRead,
    turnAndTap,
    setTurnAndTap,
    tapping,
    working,
    gauging,
    gauge,
  }
}
