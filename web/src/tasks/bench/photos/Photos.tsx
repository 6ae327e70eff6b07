import { useRef, useState } from 'react'
import styled from 'styled-components'
import { Key, Plain, Quiet } from '../../../ui/Button'
import { Dialog } from '../../../ui/Dialog'
import { Problem, Soft } from '../../../ui/Page'
import { Large, Thumb } from '../../../ui/Thumbs'
import { useKeys } from '../../../ui/useKeys'
import type { Bench, Step } from '../log/types'
import { usePhotos, type Shown } from './usePhotos'

interface Props {
  bench: Bench
  step: Step
  mayChange: boolean
}

/** How it sat: taken with the device's camera where the step marks it, looked at again where it goes back. */
export function Photos({ bench, step, mayChange }: Props) {
  const { photos, take, away } = usePhotos(bench)
  const [open, setOpen] = useState<Shown | null>(null)
  const camera = useRef<HTMLInputElement>(null)
  const may = mayChange && step.photo === 'take'
  useKeys({ p: may ? () => camera.current?.click() : undefined })
  if (!may && !photos.length) return null
  return (
    <Row aria-label="Photos">
      {may ? (
        <>
          <Quiet onPress={() => camera.current?.click()}>
            Photo <Key>P</Key>
          </Quiet>
          <input
            ref={camera}
            type="file"
            accept="image/*"
            capture="environment"
            hidden
            aria-label="Photo of how it sits"
            onChange={(event) => {
              const file = event.target.files?.[0]
              event.target.value = ''
              if (file) void take(file, step.id)
            }}
          />
        </>
      ) : (
        <Soft>As it sat</Soft>
      )}
      {photos.map((photo, n) => (
        <Thumb
          key={photo.id}
          type="button"
          aria-label={`Photo ${n + 1}. ${photo.words}`}
          onClick={() => setOpen(photo)}
        >
          <img src={photo.src} alt="" />
          {photo.why ? <span>not taken in</span> : photo.here ? <span>here</span> : null}
        </Thumb>
      ))}
      {may && !photos.length ? <Soft>Optional. It helps when the hoop goes back.</Soft> : null}
      {open ? (
        <Dialog title="As it sat" open wide onClose={() => setOpen(null)}>
          <Large src={open.src} alt={open.words} />
          {open.why ? <Problem>{open.why}</Problem> : <Soft>{open.words}</Soft>}
          <Ends>
            <Plain autoFocus onPress={() => setOpen(null)}>
              Close
            </Plain>
            {mayChange ? (
              <Quiet
                onPress={() => {
                  away.mutate(open)
                  setOpen(null)
                }}
              >
                Take this photo away
              </Quiet>
            ) : null}
          </Ends>
        </Dialog>
      ) : null}
    </Row>
  )
}

const Row = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px 12px;
  min-height: 72px;
  padding: 10px 28px;
  border-bottom: 1px solid var(--rule);
  && {
    flex: 0 0 auto;
  }
  @media (max-width: 700px) {
    padding: 8px 16px;
  }
`
const Ends = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
`
