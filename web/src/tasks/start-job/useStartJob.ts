import { useMutation, useQueries, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { api, ApiError, unwrap, type ErrorBody, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { useSession } from '../../api/session'
import { newId } from '../../domain/ids'
import { OTHER_REASON } from './reasons'

export type Offer = Schemas['OfferOut']
export type Side = Schemas['Side']

export interface Given {
  sheet: Schemas['Sheet']
  offer: Offer
  reason: string
  /** The stock item somebody chose before coming here. */
  stock?: string | null
}

/** What is chosen for one head. `picked` is a stock item, 'none', or null while the proposed one stands. */
export interface ForHead {
  picked: string | null
  /** What it is, where it does not come from the shelf. */
  named: string
  reason: string
  said: string
  target: string
}

interface Chosen {
  heads: Partial<Record<Side, ForHead>>
  cadence: Schemas['Cadence']
  /** What this job does otherwise than the workshop, by the name of the way. */
  otherwise: Record<string, string>
  /** The drum as the job finds it; empty where it is as a player left it. */
  begun: Record<string, string>
}

type Shelf = Schemas['FittingHead'][]

/** Why a head of the shelf is not for this work on this side; empty where it is. */
export function wrongKind(head: Shelf[number], offer: Offer): string {
  if (offer.mesh && head.finish !== 'mesh') return 'This is film; mesh goes on here.'
  if (!offer.mesh && head.finish === 'mesh') return 'This is mesh; film goes on here.'
  return head.warning
}

/** The head promised to this drum, else one of the same line as the old one, else any that is free; none of the wrong kind. */
function proposed(heads: Shelf, old: string | null | undefined, offer: Offer): string {
  const there = heads.filter((head) => head.free > 0 && !wrongKind(head, offer))
  const best = there.find((head) => head.promised) ?? there.find((head) => head.head === old) ?? there[0]
  return String(best?.stock_item ?? '')
}

function useBegin(tag: string) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['StartJob']) => unwrap(api.POST('/api/bench/jobs', { body })),
    onSuccess: (bench) => {
      queries.setQueryData(keys.job(bench.id), { last_seq: bench.last_seq, bench })
      void queries.invalidateQueries({ queryKey: keys.today })
      void queries.invalidateQueries({ queryKey: keys.sheet(tag) })
      void navigate(`/bench/${bench.id}`, { replace: true })
    },
  })
}

function useShelves(tag: string, sides: Side[], enabled: boolean) {
  return useQueries({
    queries: sides.map((side) => ({
      queryKey: keys.heads(tag, side),
      queryFn: () => unwrap(api.GET('/api/heads/fitting/{tag}/{side}', { params: { path: { tag, side } } })),
      enabled,
      staleTime: 0,
    })),
  })
}

/** What a job starts with, and starting it. The id is made once, so that asking twice starts one job. */
export function useStartJob({ sheet, offer, reason, stock = null }: Given) {
  const workshop = useSession().data?.workshop
  const id = useRef(newId())
  const stateOf = (side: Side) => sheet.sides.find((each) => each.side === side)
  const [chosen, setChosen] = useState<Chosen>({
    heads: {},
    cadence: workshop?.cadence ?? 'rod',
    otherwise: {},
    begun: {},
  })
  const shelves = useShelves(sheet.tag, offer.sides, offer.changes_heads)
  const begin = useBegin(sheet.tag)
  const headOf = (side: Side): ForHead => {
    const wanted = stateOf(side)?.wanted_hz
    const picked = offer.sides.length === 1 ? stock : null
    const target = wanted && !offer.mesh ? String(wanted) : ''
    return { picked, named: '', reason, said: '', target, ...chosen.heads[side] }
  }
  const shelfOf = (side: Side) => shelves[offer.sides.indexOf(side)]?.data
  const stockOf = (side: Side) =>
    headOf(side).picked ?? proposed(shelfOf(side) ?? [], stateOf(side)?.head, offer)
  const setHead = (side: Side, change: Partial<ForHead>) =>
    setChosen((now) => ({ ...now, heads: { ...now.heads, [side]: { ...headOf(side), ...change } } }))
  /** Why it cannot be started yet; empty where it can. */
  const wants = ((): string => {
    if (offer.why_not) return offer.why_not
    const waits = offer.sides.some((side) => offer.changes_heads && !shelfOf(side))
    return waits ? 'Looking what the shelf has.' : ''
  })()
  const go = () =>
    !wants &&
    !begin.isPending &&
    begin.mutate({
      id: id.current,
      tag: sheet.tag,
      work: offer.work,
      part: offer.part,
      heads: offer.sides.map((side) => {
        const [head, stock] = [headOf(side), stockOf(side)]
        return {
          side,
          stock_item: offer.changes_heads && stock && stock !== 'none' ? Number(stock) : null,
          named: offer.changes_heads && (stock || 'none') === 'none' ? head.named.trim() : '',
          reason: offer.changes_heads ? (head.reason === OTHER_REASON ? head.said : head.reason) : '',
          target: head.target,
        }
      }),
      cadence: chosen.cadence,
      begun: chosen.begun,
      schools: Object.entries(chosen.otherwise).map(([way, value]) => ({ way, value })),
    })
  const setCadence = (cadence: Chosen['cadence']) => setChosen((now) => ({ ...now, cadence }))
  const wayOf = (way: string): string =>
    chosen.otherwise[way] ??
    (workshop && way in workshop ? String(workshop[way as keyof typeof workshop]) : '')
  const setWay = (way: string) => (value: string) =>
    setChosen((now) => ({ ...now, otherwise: { ...now.otherwise, [way]: value } }))
  const setBegun = (begun: Chosen['begun']) => setChosen((now) => ({ ...now, begun }))
  const refused: ErrorBody | null = begin.error instanceof ApiError ? begin.error.body : null
  return {
    ...{
      stateOf,
      headOf,
      shelfOf,
      stockOf,
      setHead,
      chosen,
      setCadence,
      setBegun,
      wayOf,
      setWay,
      go,
      refused,
      wants,
    },
    pending: begin.isPending,
  }
}
