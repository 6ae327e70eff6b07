import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useEffectEvent, useRef, useState } from 'react'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'

export type Kit = Schemas['KitOut']
export type Wish = Schemas['KitWishes']
export type Plan = Schemas['KitPlanOut']
export type KitDrum = Schemas['DrumOfKit']
export type Placed = Schemas['PlacedDrum']

const pathOf = (id: number) => ({ params: { path: { kit_id: id } } })
/** A wish is asked and kept when nobody has changed it for so long. */
const PAUSE_MS = 350

export function useKit(id: number) {
  return useQuery({
    queryKey: keys.kit(id),
    queryFn: () => unwrap(api.GET('/api/kits/{kit_id}', pathOf(id))),
    enabled: id > 0, // a new one is no kit yet
    staleTime: 0,
  })
}

function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), PAUSE_MS)
    return () => clearTimeout(timer)
  }, [value])
  return settled
}

/** The wish as it is being changed, the plan for it, and the keeping of it. */
export function useWish(kit: Kit, mayChange: boolean) {
  const queries = useQueryClient()
  const [wish, setWish] = useState<Wish>(kit.wish)
  const asked = useSettled(wish)
  const drums = kit.drums.map((each) => each.tag)
  const plan = useQuery({
    queryKey: keys.kitPlan(kit.id, asked, drums),
    queryFn: () => unwrap(api.POST('/api/kits/{kit_id}/plan', { ...pathOf(kit.id), body: asked })),
    placeholderData: keepPreviousData,
    staleTime: 0,
    retry: false,
  })
  const { mutate: keep, error: notKept } = useMutation({
    mutationFn: (body: Wish) => unwrap(api.PUT('/api/kits/{kit_id}/wish', { ...pathOf(kit.id), body })),
    onSuccess: (_, body) => {
      queries.setQueryData<Kit>(keys.kit(kit.id), (was) => (was ? { ...was, wish: body } : was))
      void queries.invalidateQueries({ queryKey: keys.kit(kit.id) })
    },
  })
  const kept = useRef(JSON.stringify(kit.wish))
  useEffect(() => {
    const now = JSON.stringify(asked)
    if (!mayChange || now === kept.current) return
    kept.current = now
    keep(asked)
  }, [asked, keep, mayChange])
  const newest = useEffectEvent(() => {
    if (mayChange && JSON.stringify(wish) !== kept.current) keep(wish)
  })
  useEffect(() => () => newest(), []) // left before the pause was over: it is kept all the same
  return { wish, setWish, plan, notKept, thinking: asked !== wish || plan.isFetching }
}

/** The jobs of a plan: sent again, they are there once. */
export function useMakeJobs(kit: Kit) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['KitJobsIn']) =>
      unwrap(api.POST('/api/kits/{kit_id}/jobs', { ...pathOf(kit.id), body })),
    onSuccess: () => {
      for (const queryKey of [keys.today, keys.planned, keys.kit(kit.id), ['sheet'], ['sound'], ['stock']])
        void queries.invalidateQueries({ queryKey })
    },
  })
}
