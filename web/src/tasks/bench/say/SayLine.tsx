import styled from 'styled-components'
import { Quiet } from '../../../ui/Button'
import type { Say } from './useSay'

/** The voice on or off, and its pace; not there where the device has no voice of its own. */
export function SayLine({ say }: { say: Say }) {
  if (!say.there) return null
  return (
    <Line>
      <Quiet onPress={say.toggle} aria-pressed={say.on}>
        {say.on ? 'Read out: on' : 'Read out: off'}
      </Quiet>
      {say.on ? (
        <Quiet onPress={say.faster} aria-label={`Pace ${say.speed}: change`}>
          × {say.speed}
        </Quiet>
      ) : null}
    </Line>
  )
}

const Line = styled.span`
  display: inline-flex;
`
