import type { RefObject } from 'react'
import { addPhoto, smaller } from '../../api/photos'

/** The device’s camera for one photo of a drum; it is kept on the device and sent like everything else. */
export function Camera({
  at,
  tag,
  about,
}: {
  at: RefObject<HTMLInputElement | null>
  tag: string
  about: string
}) {
  return (
    <input
      ref={at}
      type="file"
      accept="image/*"
      capture="environment"
      hidden
      aria-label="Photo of what was seen"
      onChange={(event) => {
        const file = event.target.files?.[0]
        event.target.value = ''
        if (file) void smaller(file).then((image) => addPhoto({ tag, job: '', about }, image))
      }}
    />
  )
}
