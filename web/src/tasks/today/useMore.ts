import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { api, unwrap, type Schemas } from '../../api/client'
import type { OwedItem } from './owed'

type Paged = 'overdue-check' | 'to-decide' | 'planned-work' | 'aged-head'
const PAGED: readonly string[] = ['overdue-check', 'to-decide', 'planned-work', 'aged-head'] satisfies Paged[]
const isPaged = (kind: string): kind is Paged => PAGED.includes(kind)
const same = (a: OwedItem, b: OwedItem): boolean => a.kind === b.kind && a.tag === b.tag && a.side === b.side

/** The lines of Today, those a person asked for besides, and what is left of each group. */
export function useMore(today: Schemas['Today'] | undefined) {
  const [besides, setBesides] = useState<OwedItem[]>([])
  const first = (today?.items ?? []).filter((item) => item.owed_now)
  const added = besides.filter((item) => !first.some((each) => same(each, item)))
  const kinds = [...new Set(first.map((item) => item.kind))]
  const items = kinds.flatMap((kind) => [
    ...first.filter((item) => item.kind === kind),
    ...added.filter((item) => item.kind === kind),
  ])
  const shown = (kind: string) => items.filter((item) => item.kind === kind).length
  const left = Object.fromEntries(kinds.map((kind) => [kind, (today?.counts[kind] ?? 0) - shown(kind)]))
  const fetchMore = useMutation({
    mutationFn: async (kind: string) => {
      if (!isPaged(kind)) return []
      const asked = { path: { kind }, query: { offset: shown(kind) } }
      return (await unwrap(api.GET('/api/today/{kind}', { params: asked }))).items
    },
    onSuccess: (lines) => setBesides((before) => [...before, ...lines]),
  })
  return { items, left, more: (kind: string) => fetchMore.mutate(kind), waiting: fetchMore.isPending }
}
