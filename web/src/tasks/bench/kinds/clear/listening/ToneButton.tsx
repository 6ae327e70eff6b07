import { useEffect, useRef } from 'react'
import styled from 'styled-components'
import { hz as hertz } from '../../../../../domain/pitch'
import { Quiet } from '../../../../../ui/Button'
import { playTone } from './cues'

/** The wanted tone, with the decay of a drum, for the ear to compare with. */
export function ToneButton({ hz }: { hz: number }) {
  const context = useRef<AudioContext | null>(null)
  useEffect(() => () => void context.current?.close(), [])
  const play = () => {
    context.current ??= new AudioContext()
    playTone(context.current, hz)
  }
  return (
    <>
      <Tone onPress={play}>Hear the wanted {hertz(hz)} Hz</Tone>
      <Caution>Keep it quiet; long loud comparing tires and harms the ear.</Caution>
    </>
  )
}

/** Its words stand in line with those above it. */
const Tone = styled(Quiet)`
  margin-left: -10px;
`
/** On a line of its own, under the press it is about. */
const Caution = styled.small`
  flex: 1 0 100%;
  color: var(--soft);
  font-size: 13px;
`
