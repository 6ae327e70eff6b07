import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { useTaken } from '../../api/photos'
import { shortDate } from '../../domain/dates'
import { Plain } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Large, Thumb } from '../../ui/Thumbs'

type Photo = Schemas['PhotoOut']

const SHOWN = 8
const wordsOf = (photo: Photo): string => `${photo.by_name}, ${shortDate(new Date(photo.taken_at))}`

/** What was photographed when this drum was looked at, the newest first. */
export function LookPhotos({ tag }: { tag: string }) {
  const [open, setOpen] = useState<Photo | null>(null)
  const [all, setAll] = useState(false)
  const queries = useQueryClient()
  // One that was on this device and is there no more has been sent.
  const waiting = useTaken().filter((photo) => photo.tag === tag && !photo.job).length
  useEffect(() => void queries.invalidateQueries({ queryKey: keys.photosOf(tag) }), [waiting, queries, tag])
  const photos = useQuery({
    queryKey: keys.photosOf(tag),
    queryFn: () => unwrap(api.GET('/api/photos/drum/{tag}', { params: { path: { tag } } })),
  })
  const seen = photos.data?.filter((photo) => photo.job_id === null) ?? []
  if (!seen.length) return null
  return (
    <Box aria-label="Photos of looks">
      <h2>As it looked</h2>
      <div>
        {seen.slice(0, all ? undefined : SHOWN).map((photo, n) => (
          <Thumb
            key={photo.id}
            type="button"
            aria-label={`Photo ${n + 1}, by ${wordsOf(photo)}`}
            onClick={() => setOpen(photo)}
          >
            <img src={`/api/photos/${photo.id}`} alt="" loading="lazy" />
          </Thumb>
        ))}
        {!all && seen.length > SHOWN ? <Plain onPress={() => setAll(true)}>All {seen.length}</Plain> : null}
      </div>
      {open ? (
        <Dialog title={`By ${wordsOf(open)}`} open wide onClose={() => setOpen(null)}>
          <Large src={`/api/photos/${open.id}`} alt={`By ${wordsOf(open)}`} />
          <div>
            <Plain autoFocus onPress={() => setOpen(null)}>
              Close
            </Plain>
          </div>
        </Dialog>
      ) : null}
    </Box>
  )
}

const Box = styled.section`
  padding-top: 14px;
  h2 {
    font-size: 18px;
    padding-bottom: 6px;
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
`
