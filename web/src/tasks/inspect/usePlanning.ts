import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { newId } from '../../domain/ids'
import { dayIn, type Chosen } from './planning'

type Sum = Schemas['WalkSum']

export const idOf = (tag: string, work: Schemas['ProposedOut']): string => `${tag}/${work.work}/${work.part}`

/** What is proposed until somebody chooses otherwise: all of it, the head that is free, by its usual day. */
function proposed(sum: Sum, idFor: (key: string) => string): Record<string, Chosen> {
  const free = new Map<number, number>()
  const made: Record<string, Chosen> = {}
  for (const drum of sum.to_plan)
    for (const work of drum.works) {
      const heads: Chosen['heads'] = {}
      for (const side of work.new_heads) {
        const fits = drum.heads[side] ?? []
        const left = (item: Schemas['HeadChoice']) => free.get(item.stock_item) ?? item.free
        const head = fits.find((each) => left(each) > 0)
        if (head) free.set(head.stock_item, left(head) - 1)
        heads[side] = head?.stock_item ?? null
      }
      const key = idOf(drum.tag, work)
      made[key] = { id: idFor(key), on: true, due: dayIn(work.due_days), heads }
    }
  return made
}

/** What is chosen for each piece of work, and sending it. What was chosen stays chosen while the sum is asked for anew. */
export function usePlanning(id: string, sum: Sum) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [ids] = useState(() => new Map<string, string>())
  const [otherwise, setOtherwise] = useState<Record<string, Partial<Chosen>>>({})
  const [leave, setLeave] = useState<ReadonlySet<string>>(new Set())
  const chosen = useMemo(() => {
    const idFor = (key: string) => {
      const known = ids.get(key) ?? newId() // the same id when it is sent again: planned once
      ids.set(key, known)
      return known
    }
    const usual = Object.entries(proposed(sum, idFor))
    return Object.fromEntries(usual.map(([key, each]) => [key, { ...each, ...otherwise[key] }]))
  }, [sum, ids, otherwise])
  const kept = sum.to_plan.filter((drum) => !leave.has(drum.tag))
  const works = kept.flatMap((drum) =>
    drum.works.flatMap((work) => {
      const each = chosen[idOf(drum.tag, work)]
      if (!each?.on) return []
      const heads = work.new_heads.map((side) => ({ side, stock_item: each.heads[side] ?? null }))
      return [{ id: each.id, tag: drum.tag, work: work.work, part: work.part, due_on: each.due, heads }]
    }),
  )
  const plan = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/inspect/walks/{walk_id}/plan', {
          params: { path: { walk_id: id } },
          body: { works, leave: [...leave] },
        }),
      ),
    onSuccess: () => {
      for (const key of [keys.today, keys.walks, keys.planned])
        void queries.invalidateQueries({ queryKey: key })
    },
    onSettled: () => void queries.invalidateQueries({ queryKey: keys.walkSum(id) }),
  })
  const takeBack = useMutation({
    mutationFn: (body: { planned: string[]; left_so: string[] }) =>
      unwrap(api.POST('/api/inspect/walks/{walk_id}/take-back', { params: { path: { walk_id: id } }, body })),
    onSuccess: (_, { left_so }) => {
      ids.clear() // planned again, it is another piece of work
      plan.reset()
      setLeave((now) => new Set([...now].filter((tag) => !left_so.includes(tag))))
      for (const key of [keys.today, keys.walks, keys.planned])
        void queries.invalidateQueries({ queryKey: key })
    },
    onSettled: () => void queries.invalidateQueries({ queryKey: keys.walkSum(id) }),
  })
  const finish = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/inspect/walks/{walk_id}/done', { params: { path: { walk_id: id } } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: keys.walks })
      void navigate('/')
    },
  })
  return {
    ...{ leave, plan, takeBack, finish, jobs: works.length },
    chosenFor: (tag: string, work: Schemas['ProposedOut']) => chosen[idOf(tag, work)],
    change: (tag: string, work: Schemas['ProposedOut'], change: Partial<Chosen>) => {
      const key = idOf(tag, work)
      setOtherwise((now) => ({ ...now, [key]: { ...now[key], ...change } }))
    },
    setLeft: (tag: string, left: boolean) => {
      const next = new Set(leave)
      if (left) next.add(tag)
      else next.delete(tag)
      setLeave(next)
    },
  }
}
