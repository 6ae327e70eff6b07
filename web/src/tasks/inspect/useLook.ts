import { useState } from 'react'
import type { Degree, Look, Mark, Part, Spot, Tick, WalkDrum } from './log/fold'
import type { Said } from './useWalk'
import { isSided, partOf } from './words'

interface Wanted {
  drum: WalkDrum
  look: Look
  parts: readonly Part[]
  ticks: (part: Part) => readonly Tick[]
  tickOf: (finding: string) => Tick | undefined
  say: (said: Said) => Promise<string>
}

/** The hand that goes over one drum: which part, what was ticked last, where it was touched. */
export function useLook({ look, parts, ticks, tickOf, say }: Wanted) {
  const [part, setPart] = useState<Part>('batter')
  const [hand, setHand] = useState<string | null>(null)
  const [spot, setSpot] = useState<Spot | null>(null)
  const [rod, setRod] = useState<number | null>(null)
  const [asked, setAsked] = useState<Tick | null>(null)
  const [all, setAll] = useState(false)
  const inHand = look.marks.find((mark) => mark.event === hand) ?? null

  const put = (tick: Tick, at: number | null) => {
    const side = isSided(tick, part) && (part === 'batter' || part === 'resonant') ? part : null
    const degree: Degree = 2
    void say({
      kind: 'seen',
      finding: tick.id,
      degree,
      side,
      rod: tick.where === 'rod' ? at : null,
      spot: tick.where === 'head' && side ? spot : null,
      note: '',
    }).then(setHand)
    setSpot(null)
    setRod(null)
    setAsked(null)
  }
  /** Ticked again while it is in hand, it is taken back: a slip of the thumb costs one tap. */
  const tick = (kind: Tick) => {
    if (inHand?.finding === kind.id && !asked) return away(inHand)
    if (kind.where === 'rod' && rod === null) setAsked(kind)
    else put(kind, rod)
  }
  const away = (mark: Mark) => {
    void say({ kind: 'taken_back', event: mark.event })
    setHand(null)
  }
  const take = (mark: Mark) => {
    setPart(partOf(mark, tickOf(mark.finding)))
    setHand(mark.event)
    setSpot(null)
  }
  const turn = (step: number) => {
    const next = parts[(parts.indexOf(part) + step + parts.length) % parts.length]
    if (next) open(next)
  }
  const open = (next: Part) => {
    setPart(next)
    setHand(null)
    setSpot(null)
    setRod(null)
    setAsked(null)
    setAll(false)
  }
  const touch = (at: Spot) => {
    const placed = inHand && inHand.side === part && tickOf(inHand.finding)?.where === 'head'
    if (placed) void say({ kind: 'changed', event: inHand.event, spot: at })
    else setSpot(at)
  }
  const touchRod = (at: number) => {
    if (asked) put(asked, at)
    else if (inHand && inHand.side === part && tickOf(inHand.finding)?.where === 'rod')
      void say({ kind: 'changed', event: inHand.event, rod: at })
    else setRod(rod === at ? null : at)
  }
  const grade = (degree: Degree) => {
    if (inHand && degree !== inHand.degree) void say({ kind: 'changed', event: inHand.event, degree })
  }
  const worse = (by: number) => {
    const degree = (inHand?.degree ?? 2) + by
    if (inHand && tickOf(inHand.finding)?.degrees.length === 3 && degree >= 1 && degree <= 3)
      grade(degree as Degree)
  }
  return {
    ...{
      part,
      inHand,
      spot,
      rod,
      asked,
      all,
      setAll,
      tick,
      away,
      take,
      turn,
      open,
      touch,
      touchRod,
      grade,
      worse,
    },
    ticks: ticks(part),
    letGo: () => {
      setHand(null)
      setAsked(null)
      setSpot(null)
      setRod(null)
    },
  }
}
