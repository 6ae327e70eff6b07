import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { api, ApiError, unwrap, type ErrorBody, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { useSession } from '../../api/session'
import { OTHER_REASON } from './reasons'

export interface Given {
  sheet: Schemas['Sheet']
  side: 'batter' | 'resonant'
  procedure: 'new-batter-head' | 'settling-check'
  reason: string
}

interface Chosen {
  /** Stock item, 'none', or null while the proposed one stands. */
  picked: string | null
  reason: string
  said: string
  pattern: Schemas['WorkshopOut']['pattern']
  target: string
}

/** The head of the same line as the old one, else any that is in stock. */
function proposed(heads: Schemas['FittingHead'][], old: string | null | undefined): string {
  const there = heads.filter((head) => head.count > 0)
  return String((there.find((head) => head.head === old) ?? there[0])?.stock_item ?? '')
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

/** What a job starts with, and starting it. The id is made once, so that asking twice starts one job. */
export function useStartJob({ sheet, side, procedure, reason }: Given) {
  const workshop = useSession().data?.workshop
  const state = sheet.sides.find((each) => each.side === side)
  const changing = procedure === 'new-batter-head'
  const id = useRef(crypto.randomUUID())
  const [chosen, setChosen] = useState<Chosen>({
    picked: null,
    reason,
    said: '',
    pattern: workshop?.pattern ?? 'star',
    target: state?.wanted_hz ? String(state.wanted_hz) : '',
  })
  const shelf = useQuery({
    queryKey: keys.heads(sheet.tag, side),
    queryFn: () =>
      unwrap(api.GET('/api/heads/fitting/{tag}/{side}', { params: { path: { tag: sheet.tag, side } } })),
    enabled: changing,
    staleTime: 0,
  })
  const begin = useBegin(sheet.tag)
  const stock = chosen.picked ?? proposed(shelf.data ?? [], state?.head)
  const go = () =>
    begin.mutate({
      id: id.current,
      tag: sheet.tag,
      procedure,
      side,
      stock_item: changing && stock && stock !== 'none' ? Number(stock) : null,
      reason: changing ? (chosen.reason === OTHER_REASON ? chosen.said : chosen.reason) : '',
      pattern: chosen.pattern,
      target: chosen.target,
    })
  const set =
    <K extends keyof Chosen>(name: K) =>
    (value: Chosen[K]) =>
      setChosen((now) => ({ ...now, [name]: value }))
  const refused: ErrorBody | null = begin.error instanceof ApiError ? begin.error.body : null
  return { state, changing, heads: shelf.data, chosen, set, stock, go, pending: begin.isPending, refused }
}
