import { useRef } from 'react'
import styled from 'styled-components'
import { Key, Quiet } from '../../../../../ui/Button'
import { Select } from '../../../../../ui/Select'
import { TAKEN, TAKEN_MB, TAKEN_WORDS } from './hear'
import type { Listening } from './listening'
import { LastTap } from './LastTap'

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
