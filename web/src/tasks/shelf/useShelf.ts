import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { newId } from '../../domain/ids'

export type Row = Schemas['ShelfRow']
export type Line = Schemas['LineOut']
export type Shelf = Schemas['ShelfOut']
export type Explained = 'bought' | 'miscounted'

export const useStock = () =>
  useQuery({ queryKey: keys.stock, queryFn: () => unwrap(api.GET('/api/shelf')), staleTime: 5_000 })

export const useLine = (line: number) =>
  useQuery({
    queryKey: keys.stockLine(line),
    queryFn: () => unwrap(api.GET('/api/shelf/lines/{line}', { params: { path: { line } } })),
  })

/** What happened last to a line did not. */
export function useTakeBack(line: number) {
  const queries = useQueryClient()
  const changed = useStockChanged()
  return useMutation({
    mutationFn: (act: string) =>
      unwrap(api.POST('/api/shelf/lines/{line}/moves/{act}/take-back', { params: { path: { line, act } } })),
    onSuccess: (found) => queries.setQueryData(keys.stockLine(line), found),
    onSettled: () => {
      changed()
      void queries.invalidateQueries({ queryKey: keys.stockLine(line) })
      void queries.invalidateQueries({ queryKey: keys.buying })
    },
  })
}

/** Everything that shows counts is asked for anew. */
export function useStockChanged() {
  const queries = useQueryClient()
  return () => {
    void queries.invalidateQueries({ queryKey: keys.stock })
    void queries.invalidateQueries({ queryKey: keys.today })
    void queries.invalidateQueries({ queryKey: ['heads'] })
    void queries.invalidateQueries({ queryKey: ['choose'] })
  }
}

/** More would leave than the count says is there: somebody has to say what happened. */
export const asksWhatHappened = (error: unknown): error is ApiError =>
  error instanceof ApiError && error.body.code === 'below_nought'

/** One act with its own id until it went in, so that pressing twice does it once; explained where it is asked what happened. */
export function useAct<In>(send: (id: string, asked: In, explained: '' | Explained) => Promise<unknown>) {
  const [id, setId] = useState(newId)
  const changed = useStockChanged()
  const act = useMutation({
    mutationFn: ({ asked, explained = '' }: { asked: In; explained?: '' | Explained }) =>
      send(id, asked, explained),
    onSuccess: () => {
      setId(newId())
      changed()
    },
  })
  return act
}
