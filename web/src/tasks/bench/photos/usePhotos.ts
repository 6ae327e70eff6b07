import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { api, unwrap, type Schemas } from '../../../api/client'
import { keys } from '../../../api/keys'
import { addPhoto, letGo, smaller, useTaken } from '../../../api/photos'
import type { Bench } from '../log/types'

/** One photo to show, wherever it is now; `why` is what the server had against it. */
export interface Shown {
  id: string
  src: string
  words: string
  here: boolean
  why: string
}

const hour = (iso: string): string =>
  new Date(iso).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })

const asShown = (photo: Schemas['PhotoOut']): Shown => ({
  id: photo.id,
  src: `/api/photos/${photo.id}`,
  words: `Taken by ${photo.by_name}, ${hour(photo.taken_at)}`,
  here: false,
  why: '',
})

/** The photos of a job: those the server has, and those still on this device. */
export function usePhotos(bench: Bench) {
  const queries = useQueryClient()
  const taken = useTaken()
  const mine = useMemo(() => taken.filter((photo) => photo.job === bench.id), [taken, bench.id])
  const there = useQuery({
    queryKey: keys.photos(bench.id),
    queryFn: () => unwrap(api.GET('/api/photos/job/{job_id}', { params: { path: { job_id: bench.id } } })),
  })
  useEffect(
    () => void queries.invalidateQueries({ queryKey: keys.photos(bench.id) }),
    [mine.length, queries, bench.id],
  )
  const here = useMemo(
    () =>
      mine.map((photo) => ({
        id: photo.id,
        src: URL.createObjectURL(new Blob([photo.image], { type: 'image/jpeg' })),
        words: photo.state === 'refused' ? 'Not taken in' : 'On this device, not sent yet',
        here: true,
        why: photo.message,
      })),
    [mine],
  )
  useEffect(() => () => here.forEach((photo) => URL.revokeObjectURL(photo.src)), [here])
  const known = new Set(there.data?.map((photo) => photo.id))
  const away = useMutation({
    mutationFn: async (photo: Shown) => {
      if (photo.here) return letGo(photo.id)
      await unwrap(api.DELETE('/api/photos/{photo_id}', { params: { path: { photo_id: photo.id } } }))
    },
    onSettled: () => queries.invalidateQueries({ queryKey: keys.photos(bench.id) }),
  })
  return {
    photos: [...(there.data ?? []).map(asShown), ...here.filter((photo) => !known.has(photo.id))],
    take: async (photo: Blob, about: string) =>
      addPhoto({ tag: bench.tag, job: bench.id, about }, await smaller(photo)),
    away,
  }
}
