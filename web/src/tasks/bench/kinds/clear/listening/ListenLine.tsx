import { useRef } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { Key, Quiet } from '../../../../../ui/Button'
import { Select } from '../../../../../ui/Select'
import { RingPicture } from '../../../../../ui/TapPictures'
import { TAKEN, TAKEN_MB, TAKEN_WORDS, type Heard } from './hear'
import type { Listening } from './useListening'

interface Props {
  job: string
  listening: Listening
  simulated: boolean
}

/** Ears on and off, how loud it is, and what was heard; or a recording instead. */
export function ListenLine({ job, listening, simulated }: Props) {
  const picker = useRef<HTMLInputElement>(null)
  const { state, level, words, last, device, others } = listening
  const off = state === 'off' || state === 'opening'
  return (
    <Line>
      {off ? (
        <>
          <Quiet onPress={listening.start} isDisabled={state === 'opening'}>
            Listen <Key>L</Key>
          </Quiet>
          {simulated ? <Quiet onPress={listening.simulate}>Simulated drum</Quiet> : null}
          <Quiet onPress={() => picker.current?.click()} aria-describedby="recordings-taken">
            <Two>
              Recording…<small>up to {TAKEN_MB} MB</small>
            </Two>
          </Quiet>
          <small id="recordings-taken">{TAKEN_WORDS}</small>
          <input
            ref={picker}
            type="file"
            tabIndex={-1} // the button beside it opens it
            multiple
            aria-label="A recording of the round"
            accept={TAKEN}
            onChange={(event) => {
              listening.files([...(event.target.files ?? [])])
              event.target.value = ''
            }}
          />
        </>
      ) : (
        <>
          {state === 'on' ? (
            <Meter aria-hidden>
              <i style={{ transform: `scaleX(${Math.min(1, Math.sqrt(level))})` }} />
            </Meter>
          ) : null}
          <Quiet onPress={listening.stop}>
            Stop listening <Key>L</Key>
          </Quiet>
          {state === 'on' && others.length ? (
            <Select
              label="Microphone"
              hideLabel
              value=""
              onChange={listening.use}
              options={[['', device], ...others.map(({ id, name }) => [id, name] as const)]}
            />
          ) : null}
        </>
      )}
      <p role="status">{words}</p>
      {last ? <LastTap job={job} tap={last} /> : null}
    </Line>
  )
}

const cents = (size: number) => `${size.toFixed(0)} ${Math.round(size) === 1 ? 'cent' : 'cents'}`

/** The tap just heard, as it rang and settled. */
function LastTap({ job, tap }: { job: string; tap: Heard }) {
  const sharp = Math.round(tap.glide_cents)
  return (
    <Last to={`/bench/${job}/taps`}>
      <RingPicture
        ring={tap.picture}
        label={`The last tap rang away${tap.hz ? `, ${sharp} cents sharp at first` : ''}`}
      />
      <span>
        {tap.hz ? `${tap.hz.toFixed(1)} Hz ± ${cents(1.96 * (tap.cents_sigma ?? 0))}` : 'not taken'}
        <small>{sharp > 3 ? `${cents(sharp)} sharp at the stroke` : 'All taps'}</small>
      </span>
    </Last>
  )
}

const Line = styled.div`
  position: relative; /* what is only for screen readers scrolls along */
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 6px;
  margin-left: -10px;
  input,
  > small {
    position: absolute;
    width: 1px;
    height: 1px;
    clip-path: inset(50%);
  }
  p {
    flex: 1 1 100%;
    padding-left: 10px;
    font-size: 15px;
    line-height: 1.35;
  }
  select {
    max-width: 190px;
  }
`
const Two = styled.span`
  display: block;
  line-height: 1.15;
  small {
    display: block;
    font-size: 12px;
    font-weight: 400;
    color: var(--soft);
  }
`
const Last = styled(Link)`
  display: flex;
  align-items: center;
  gap: 14px;
  margin: 6px 0 0 10px;
  text-decoration: none;
  color: inherit;
  font-size: 15px;
  svg {
    flex: none;
    width: 150px;
    height: 46px;
  }
  small {
    display: block;
    color: var(--soft);
    font-size: 13px;
    text-decoration: underline;
  }
`
const Meter = styled.span`
  width: 120px;
  height: 12px;
  margin-left: 10px;
  border: 1px solid var(--ink);
  border-radius: 2px;
  i {
    display: block;
    height: 100%;
    background: var(--ink);
    transform-origin: left;
  }
`
