import type { Schemas } from '../../../api/client'
import type { Entry, WalkBody, WalkEntry } from '../../../api/outbox'

export type Walk = Schemas['WalkOut']
export type WalkDrum = Schemas['WalkDrumOut']
export type Tick = Schemas['TickOut']
export type Verdict = Schemas['VerdictOut']
export type Side = Schemas['Side']
export type Degree = 1 | 2 | 3
export type Part = 'batter' | 'resonant' | 'wires' | 'shell' | 'hardware'
export interface Spot {
  x: number
  y: number
}

/** One thing seen, as it was last said. */
export interface Mark {
  event: string
  finding: string
  degree: Degree
  side: Side | null
  rod: number | null
  spot: Spot | null
  note: string
}

/** How one drum was found so far. `own` are this walk's entries about it that can be taken back, the last first. */
export interface Look {
  marks: Mark[]
  again: Set<number>
  gone: Set<number>
  out: boolean | null
  looked: string | null
  notHere: string | null
  overruled: Record<string, string>
  own: string[]
}

interface Entered {
  id: string
  body: WalkBody
}

const blank = (): Look => ({
  marks: [],
  again: new Set(),
  gone: new Set(),
  out: null,
  looked: null,
  notHere: null,
  overruled: {},
  own: [],
})

/** What the server has told and, after it, what this device has entered since. */
function entered(walk: Walk, entries: readonly Entry[]): Entered[] {
  const told = new Set(walk.events.map((each) => each.id))
  const mine = entries
    .filter((each): each is WalkEntry => each.log === 'walk' && each.job === walk.id)
    .filter(({ state, event }) => state !== 'refused' && !told.has(event.id))
    .map(({ event }) => ({ id: event.id, body: event.body }))
  return [...walk.events, ...mine]
}

function apply(look: Look, { id, body }: Entered): void {
  switch (body.kind) {
    case 'seen': {
      const { finding, degree, side = null, rod = null, spot = null, note = '' } = body
      look.marks.push({ event: id, finding, degree, side, rod, spot, note })
      look.notHere = null
      return
    }
    case 'changed':
      look.marks = look.marks.map((mark) =>
        mark.event === body.event
          ? {
              ...mark,
              degree: body.degree ?? mark.degree,
              rod: body.rod ?? mark.rod,
              spot: body.spot ?? mark.spot,
              note: body.note ?? mark.note,
            }
          : mark,
      )
      return
    case 'again':
    case 'gone': {
      const [to, from] = body.kind === 'again' ? [look.again, look.gone] : [look.gone, look.again]
      for (const row of body.rows) {
        to.add(row)
        from.delete(row)
      }
      return
    }
    case 'goes_out':
      look.out = body.out
      return
    case 'looked':
      look.looked = id
      look.notHere = null
      return
    case 'not_here':
      look.notHere = id
      return
    case 'overruled':
      look.overruled[body.part] = body.verdict
  }
}

/** Each drum of a walk as it was found so far. What was undone never was. */
export function fold(walk: Walk, entries: readonly Entry[]): Map<string, Look> {
  const all = entered(walk, entries)
  const undone = new Set(all.flatMap(({ body }) => (body.kind === 'taken_back' ? [body.event] : [])))
  const looks = new Map(walk.drums.map((drum) => [drum.tag, blank()]))
  for (const each of all) {
    const look = looks.get(each.body.drum)
    if (!look || undone.has(each.id) || each.body.kind === 'taken_back') continue
    apply(look, each)
    look.own.unshift(each.id)
  }
  return looks
}

/** Where a spot is, as it is said; the core says it in the same words. */
export function spotWords(spot: Spot | null, rods: number, atRod: boolean): string {
  if (!spot) return ''
  const radius = Math.hypot(spot.x, spot.y)
  if (radius <= 0.34) return 'middle'
  if (!rods) return radius >= 0.78 ? 'edge' : 'half way out'
  const clockwise = (Math.atan2(spot.x, spot.y) + 2 * Math.PI) % (2 * Math.PI)
  const rod = ((Math.round((clockwise / (2 * Math.PI)) * rods - (atRod ? 0 : 0.5)) + rods) % rods) + 1
  return radius < 0.78 ? `half way to rod ${rod}` : `edge by rod ${rod}`
}
