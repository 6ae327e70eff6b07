import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { letGo, useTaken } from '../../api/photos'
import { Plain, Quiet } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Problem } from '../../ui/Page'
import { Large, Thumb } from '../../ui/Thumbs'

interface Shown {
  id: string
  src: string
  words: string
  why: string
  here: boolean
}

/** Photos of a drum taken since a walk began: those the server has, and those still on this device. */
export function LookPhotos({
  tag,
  since,
  wordsOf,
}: {
  tag: string
  since: string
  wordsOf: (about: string) => string
}) {
  const [open, setOpen] = useState<Shown | null>(null)
  const queries = useQueryClient()
  const taken = useTaken()
  const mine = useMemo(() => taken.filter((photo) => photo.tag === tag && !photo.job), [taken, tag])
  const there = useQuery({
    queryKey: keys.photosOf(tag),
    queryFn: () => unwrap(api.GET('/api/photos/drum/{tag}', { params: { path: { tag } } })),
  })
  useEffect(
    () => void queries.invalidateQueries({ queryKey: keys.photosOf(tag) }),
    [mine.length, queries, tag],
  )
  const here = useMemo(
    () =>
      mine.map((photo) => ({
        id: photo.id,
        src: URL.createObjectURL(new Blob([photo.image], { type: 'image/jpeg' })),
        words: `${wordsOf(photo.about)}, ${photo.state === 'refused' ? 'not taken in' : 'on this device, not sent yet'}`,
        why: photo.message,
        here: true,
      })),
    [mine, wordsOf],
  )
  useEffect(() => () => here.forEach((photo) => URL.revokeObjectURL(photo.src)), [here])
  const known = new Set(there.data?.map((photo) => photo.id))
  const shown: Shown[] = [
    ...(there.data ?? [])
      .filter((photo) => photo.job_id === null && new Date(photo.taken_at) >= new Date(since))
      .map((photo) => ({
        id: photo.id,
        src: `/api/photos/${photo.id}`,
        words: `${wordsOf(photo.about)}, by ${photo.by_name}`,
        why: '',
        here: false,
      })),
    ...here.filter((photo) => !known.has(photo.id)),
  ]
  if (!shown.length) return null
  return (
    <Row aria-label="Photos of this look" role="group">
      {shown.map((photo, n) => (
        <Thumb
          key={photo.id}
          type="button"
          aria-label={`Photo ${n + 1}: ${photo.words}`}
          onClick={() => setOpen(photo)}
        >
          <img src={photo.src} alt="" />
          {photo.here ? <span>{photo.why ? 'not taken in' : 'here'}</span> : null}
        </Thumb>
      ))}
      {open ? (
        <Dialog title={open.words} open wide onClose={() => setOpen(null)}>
          <Large src={open.src} alt={open.words} />
          {open.why ? <Problem>{open.why}</Problem> : null}
          <p>
            <Plain autoFocus onPress={() => setOpen(null)}>
              Close
            </Plain>
            {open.here ? (
              <Quiet
                onPress={() => {
                  void letGo(open.id)
                  setOpen(null)
                }}
              >
                Take this photo away
              </Quiet>
            ) : null}
          </p>
        </Dialog>
      ) : null}
    </Row>
  )
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  && {
    grid-area: auto;
    padding: 0;
  }
`
