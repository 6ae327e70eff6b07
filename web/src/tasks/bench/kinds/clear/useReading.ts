import { useState } from 'react'
import type { Body } from '../../../../api/outbox'
import { useListening } from './listening/useListening'
import { draftKey, keepFor, kept, otherKey, RINGS } from './kept'
import { readingProblem } from './readingProblem'
import { useTapped } from './useTapped'
import type { Next } from '../../cursor'
import type { Bench } from '../../log/types'
import type { Reading } from './reading'

/** The reading being typed. Half a number survives a reload too. */
export function useReading(bench: Bench, next: Next, enter: (body: Body) => void): Reading {
  const [chosen, setChosen] = useState<number | null>(null)
  const [typed, write] = useState(() => kept(draftKey(bench.id)))
  const [problem, setProblem] = useState('')
  const [beside, gauge] = useState(false)
  const [centre, toMiddle] = useState(false)
  const [otherRings, setOtherRings] = useState(() => kept(otherKey(bench.id)) === RINGS)
  const middle = centre && next.kind === 'read' && bench.means === 'pitch'
  const gauging = beside && next.kind === 'cleared'
  const ungauged =
    next.kind === 'cleared'
      ? bench.head.tapping_order.find((each) => !next.lap.rods.find((one) => one.rod === each)?.number)
      : undefined
  const rod = next.kind === 'read' ? (chosen ?? next.rod) : gauging ? (chosen ?? ungauged ?? null) : null
  const setTyped = (text: string) => {
    write(text)
    setProblem('')
    keepFor(draftKey(bench.id), text)
  }
  const muteOther = (on: boolean) => {
    setOtherRings(!on)
    keepFor(otherKey(bench.id), on ? '' : RINGS)
  }
  const choose = (number: number) => {
    setChosen(number)
    setTyped(
      next.kind === 'read' ? (next.lap.rods.find((each) => each.rod === number)?.reading?.typed ?? '') : '',
    )
  }
  const step = (by: number) => {
    const order = bench.head.tapping_order
    const at = rod === null ? 0 : order.indexOf(rod) + by
    const to = order[(at + order.length) % order.length]
    if (to !== undefined) choose(to)
  }
  const keep = () => {
    if (rod === null && !middle) return
    const wrong = readingProblem(typed, gauging ? 'gauge' : bench.means)
    if (wrong) {
      setProblem(wrong)
      return
    }
    judge(typed.trim())
  }
  const judge = (what: string) => {
    if (!('lapNo' in next)) return
    if (middle) {
      enter({ kind: 'centre', step: next.step.id, lap: next.lapNo, typed: what })
      toMiddle(false)
      setTyped('')
      return
    }
    if (rod === null) return
    const means = gauging ? 'gauge' : bench.means
    enter({
      kind: 'reading',
      step: next.step.id,
      lap: next.lapNo,
      rod,
      typed: what,
      means,
      partials: [],
      tap: '',
    })
    setChosen(null)
    setTyped('')
  }
  const listening = useListening({
    job: bench.id,
    step: next.kind === 'read' ? next.step.id : '',
    lap: next.kind === 'read' ? next.lapNo : 0,
    rod: bench.means === 'pitch' && next.kind === 'read' ? rod : null,
    rods: bench.head.tapping_order,
    count: bench.head.rods,
    middle,
    otherMuted: !otherRings,
    keep: (heardRod, { id: tap, typed: heard, partials }) => {
      if (next.kind !== 'read' || !heard) return
      enter({
        kind: 'reading',
        step: next.step.id,
        lap: next.lapNo,
        rod: heardRod,
        typed: heard,
        means: 'pitch',
        partials,
        tap,
      })
      setChosen(null)
    },
    keepMiddle: ({ typed: heard }) => {
      if (next.kind !== 'read' || !heard) return
      enter({ kind: 'centre', step: next.step.id, lap: next.lapNo, typed: heard })
      toMiddle(false)
    },
  })
  const tapped = useTapped(next)
  const putRight = () => {
    if (tapped && next.kind === 'read')
      enter({ kind: 'order', step: next.step.id, lap: next.lapNo, moves: tapped.moves })
  }
  return {
    listening,
    rod,
    typed,
    problem,
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
    allRead: next.kind === 'read' && next.rod === null && chosen === null && !middle,
    gauging,
    gauge,
  }
}
