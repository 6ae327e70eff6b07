import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { TapCatcher, toPcm } from '../../ui/ear/catcher'
import { openMicrophone, whyNot, type Open } from '../../ui/ear/microphone'

export type Sang = Schemas['SangOut']

/** A stroke, a second, the hand, and what rings on. */
const LISTENS_S = 3.2

const path = (kit: number) => ({ path: { kit_id: kit } })

/** What was heard when each drum was struck last. */
export const useSung = (kit: number) =>
  useQuery({
    queryKey: keys.sung(kit),
    queryFn: () => unwrap(api.GET('/api/kits/{kit_id}/sing', { params: path(kit) })),
  })

/** Strike this drum of the kit and hear who answers: by microphone, from a recording, or in the demo from a simulated kit. */
export function useSing(kit: number, struck: string) {
  const queries = useQueryClient()
  const open = useRef<Open | null>(null)
  const [words, setWords] = useState('')
  const [listening, setListening] = useState(false)
  const stop = useCallback(() => {
    open.current?.close()
    open.current = null
    setListening(false)
    setWords('')
  }, [])
  useEffect(() => stop, [stop, struck])
  const heard = useMutation({
    mutationFn: (sound: { samples: Float32Array; rate: number } | File | 'simulated') => {
      if (sound === 'simulated')
        return unwrap(api.POST('/api/kits/{kit_id}/sing/simulated', { params: path(kit), body: { struck } }))
      if (sound instanceof File)
        return unwrap(
          api.POST('/api/kits/{kit_id}/sing/file', {
            params: path(kit),
            body: { sound: '', struck },
            bodySerializer: () => {
              const form = new FormData()
              form.set('sound', sound)
              form.set('struck', struck)
              return form
            },
          }),
        )
      return unwrap(
        api.POST('/api/kits/{kit_id}/sing', {
          params: { ...path(kit), query: { struck, rate: Math.round(sound.rate) } },
          body: toPcm(sound.samples) as never,
          bodySerializer: (body: unknown) => body as BodyInit,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      )
    },
    onSuccess: (sang) => {
      queries.setQueryData<Sang[]>(keys.sung(kit), (was) => [
        sang,
        ...(was ?? []).filter((each) => each.struck !== sang.struck),
      ])
    },
  })
  const listen = () => {
    if (listening) return stop()
    let catcher: TapCatcher | null = null
    openMicrophone((block, rate) => {
      catcher ??= new TapCatcher(rate, LISTENS_S)
      const { tap, ringing } = catcher.feed(block)
      if (ringing) setWords('Now lay your hand flat on both its heads.')
      if (!tap || !open.current) return
      stop()
      heard.mutate({ samples: tap, rate })
    }, stop)
      .then((opened) => {
        open.current = opened
        setListening(true)
        setWords('Strike it once, in the middle.')
      })
      .catch((error: unknown) => setWords(whyNot(error)))
  }
  return { heard, listen, listening, words }
}
