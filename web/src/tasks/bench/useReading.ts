import { useState } from 'react'
import type { Body } from '../../api/outbox'
import { readingProblem } from './panels/ReadPanel'
import type { Next } from './state/next'
import type { Bench } from './state/types'

export interface Reading {
  rod: number | null
  typed: string
  problem: string
  setTyped: (typed: string) => void
  choose: (rod: number) => void
  step: (by: number) => void
  keep: () => void
  allRead: boolean
}

const draftKey = (job: string): string => `red-tally-reading:${job}`

function kept(job: string): string {
  try {
    return sessionStorage.getItem(draftKey(job)) ?? ''
  } catch {
    return ''
  }
}

/** The reading being typed. Half a number survives a reload too. */
export function useReading(bench: Bench, next: Next, enter: (body: Body) => void): Reading {
  const [chosen, setChosen] = useState<number | null>(null)
  const [typed, write] = useState(() => kept(bench.id))
  const [problem, setProblem] = useState('')
  const rod = next.kind === 'read' ? (chosen ?? next.rod) : null
  const setTyped = (text: string) => {
    write(text)
    setProblem('')
    try {
      sessionStorage.setItem(draftKey(bench.id), text)
    } catch {
      // Storage refused: the draft lasts as long as the page.
    }
  }
  const choose = (number: number) => {
    setChosen(number)
    setTyped(
      next.kind === 'read' ? (next.lap.rods.find((each) => each.rod === number)?.reading?.typed ?? '') : '',
    )
  }
  const step = (by: number) => {
    const order = bench.tapping_order
    const at = rod === null ? 0 : order.indexOf(rod) + by
    const to = order[(at + order.length) % order.length]
    if (to !== undefined) choose(to)
  }
  const keep = () => {
    if (next.kind !== 'read' || rod === null) return
    const wrong = readingProblem(typed)
    if (wrong) {
      setProblem(wrong)
      return
    }
    enter({ kind: 'reading', lap: next.lapNo, rod, typed: typed.trim() })
    setChosen(null)
    setTyped('')
  }
  return {
    rod,
    typed,
    problem,
    setTyped,
    choose,
    step,
    keep,
    allRead: next.kind === 'read' && next.rod === null && chosen === null,
  }
}
