import { useMemo, useState } from 'react'
import styled from 'styled-components'
import { Key, Main, Plain } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { useKeys } from '../../ui/useKeys'
import type { Callout, Standing } from './log/fold'
import type { Enter } from './useCallout'
import { bagParts } from './words'

interface Props {
  callout: Callout
  stands: Standing
  enter: Enter
  may: boolean
  onBegin: () => void
}

/** What is always worth having with one; the rest is asked for by the record and by call-outs before. */
const WITH_ONE = ['drumstick', 'tension rod', 'rubber foot', 'snare stand', 'mat or carpet', 'felt']

/** What is in the bag, and what to put into it. */
export function Bag({ callout, stands, enter, may, onBegin }: Props) {
  const [other, setOther] = useState('')
  const asked = useMemo(() => new Map(callout.bag.map((line) => [line.part, line])), [callout.bag])
  const used = useMemo(
    () => new Set(callout.book?.steps.flatMap((step) => bagParts(step)) ?? []),
    [callout.book],
  )
  const usual = WITH_ONE.map((part) => [...used].find((each) => each.startsWith(part)) ?? part)
  const parts = [
    ...new Set([...asked.keys(), ...usual.filter((part) => used.has(part)), ...stands.bag.keys()]),
  ]
  const begin = () => {
    if (!stands.clock) enter({ kind: 'clock', minutes: callout.minutes })
    onBegin()
  }
  const add = () => {
    if (other.trim()) enter({ kind: 'bagged', part: other.trim(), count: 1 })
    setOther('')
  }
  useKeys({ ' ': may ? begin : undefined })
  return (
    <Box aria-label="What is in the bag">
      <ul>
        {parts.map((part) => {
          const line = asked.get(part)
          const count = stands.bag.get(part) ?? 0
          const set = (to: number) => enter({ kind: 'bagged', part, count: Math.max(0, to) })
          return (
            <li key={part} data-in={count > 0 || undefined}>
              <span>
                <b>{part}</b>
                {line ? (
                  <small>
                    {line.number > 1 ? `bring ${line.number}; ` : ''}
                    {line.why}
                  </small>
                ) : null}
              </span>
              <Plain
                isDisabled={!may || count === 0}
                onPress={() => set(count - 1)}
                aria-label={`One ${part} less`}
              >
                −
              </Plain>
              <output aria-label={`${part} in the bag`}>{count}</output>
              <Plain isDisabled={!may} onPress={() => set(count + 1)} aria-label={`One ${part} more`}>
                +
              </Plain>
            </li>
          )
        })}
      </ul>
      {may ? (
        <form
          onSubmit={(event) => {
            event.preventDefault()
            add()
          }}
        >
          <Field label="Something else in the bag" value={other} onChange={setOther} list="bag-parts" />
          <datalist id="bag-parts">
            {[...used].sort().map((part) => (
              <option key={part} value={part} />
            ))}
          </datalist>
          <Plain type="submit" isDisabled={!other.trim()}>
            Add
          </Plain>
        </form>
      ) : null}
      {may ? (
        <footer>
          <Main onPress={begin}>
            {stands.clock ? 'On with the walk' : `Start the clock: ${callout.minutes} min`} <Key>space</Key>
          </Main>
        </footer>
      ) : null}
    </Box>
  )
}

const Box = styled.section`
  flex: 1;
  display: flex;
  flex-direction: column;
  padding: 8px 28px 0;
  max-width: 760px;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 48px 40px 48px;
    align-items: center;
    min-height: 58px;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
  }
  li button {
    justify-content: center;
    padding: 0;
    font-size: 22px;
  }
  li[data-in] b {
    font-weight: 700;
  }
  b {
    display: block;
    font-weight: 550;
    font-size: 17px;
    line-height: 1.25;
  }
  small {
    color: var(--soft);
    font-size: 14px;
  }
  output {
    text-align: center;
    font: 600 20px var(--mono);
  }
  form {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: end;
    gap: 12px;
    padding: 14px 0;
  }
  footer {
    position: sticky;
    bottom: var(--above-rail);
    margin-top: auto;
    padding: 10px 0 14px;
    background: var(--ground);
  }
  footer button {
    width: 100%;
  }
  @media (max-width: 700px) {
    padding: 4px 16px 0;
  }
`
