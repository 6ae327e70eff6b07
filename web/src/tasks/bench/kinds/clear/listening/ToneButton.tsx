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
    <Line>
      <Quiet onPress={play}>Hear the wanted {hertz(hz)} Hz</Quiet>
      <small>Keep it quiet; long loud comparing tires and harms the ear.</small>
    </Line>
  )
}

const Line = styled.div`
  margin-left: -10px;
  small {
    display: block;
    padding-left: 10px;
    color: var(--soft);
    font-size: 13px;
  }
`
