import { useEffect, useEffectEvent, useRef, useState } from 'react'
import styled from 'styled-components'
import { Problem, Soft } from '../Page'
import { codeReader } from './reader'

const EVERY_MS = 180

/** What a label says: its words, or of an address the last part. */
export function codeWords(text: string): string {
  const path = /^https?:\/\/[^/]+\/(.+)$/.exec(text.trim())?.[1]
  return decodeURIComponent((path ? (path.split('/').at(-1) ?? '') : text).trim()).slice(0, 60)
}

/** The camera, looking for a label; tells each new one it reads. Without a camera it says so, and typing stays. */
export function Scanner({ onCode }: { onCode: (words: string) => void }) {
  const video = useRef<HTMLVideoElement>(null)
  const [trouble, setTrouble] = useState('')
  const told = useEffectEvent(onCode)
  useEffect(() => {
    let over = false
    let stream: MediaStream | null = null
    let timer: ReturnType<typeof setTimeout> | undefined
    let last = ''
    const begin = async () => {
      stream = await navigator.mediaDevices.getUserMedia({
        video: { facingMode: 'environment', width: { ideal: 1280 } },
        audio: false,
      })
      const at = video.current
      if (over || !at) return
      at.srcObject = stream
      await at.play()
      const read = await codeReader()
      const look = async () => {
        if (over) return
        const words = await read(at).catch(() => null)
        if (words && words !== last && !over) {
          last = words
          told(codeWords(words))
        }
        timer = setTimeout(() => void look(), EVERY_MS)
      }
      void look()
    }
    const stop = () => stream?.getTracks().forEach((track) => track.stop())
    begin()
      .catch((error: unknown) => {
        const refused = error instanceof DOMException && error.name === 'NotAllowedError'
        if (!over)
          setTrouble(
            refused
              ? 'The camera is not allowed here. Allow it in the browser, or type the tag.'
              : 'No camera that can be used. Type the tag.',
          )
      })
      .finally(() => over && stop())
    return () => {
      over = true
      clearTimeout(timer)
      stop()
    }
  }, [])
  if (trouble) return <Problem>{trouble}</Problem>
  return (
    <Frame>
      <video ref={video} muted playsInline aria-label="Camera" />
      <Soft>Hold the label in the frame.</Soft>
    </Frame>
  )
}

const Frame = styled.div`
  display: grid;
  gap: 6px;
  video {
    width: 100%;
    max-height: 34dvh;
    object-fit: cover;
    background: var(--faint);
    border: 1.5px solid var(--ink);
    border-radius: 2px;
  }
`
