import { useState } from 'react'
import styled from 'styled-components'
import { Button } from 'react-aria-components'
import { Choice } from '../../../ui/Choice'
import type { Ask } from '../log/types'
import type { AskProps } from './props'
import { placeOf, Ring, ringOf, SPOT } from './Ring'

interface Props {
  asks: Ask[]
  badge: string
  answer: AskProps['answer']
}

/** A rod is a stroke and a gap a dot; only the hours of a clock face are numbers. */
const signOf = (value: string): string =>
  value.startsWith('gap') ? '·' : value.startsWith('rod') ? '|' : (value.split('-')[1] ?? '')

/** Where things sit round the drum: what is placed is chosen, then its place is tapped on the drum seen from above. */
export function PlacesRound({ asks, badge, answer }: Props) {
  const [name, setName] = useState(asks[0]?.name ?? '')
  const ask = asks.find((each) => each.name === name) ?? asks[0]
  if (!ask) return null
  const { radius, size } = ringOf(ask.options.length)
  const at = (value: string) => asks.filter((each) => each.values.includes(value))
  return (
    <Wrap>
      <Choice
        label="Tap where it sits"
        value={ask.name}
        onChange={setName}
        options={asks.map((each) => ({ value: each.name, words: each.words, note: each.said || 'not said' }))}
      />
      <Round style={{ width: size, height: size }} role="group" aria-label={ask.words}>
        <Ring asks={asks} badge={badge} />
        {ask.options.map(({ value, words }) => {
          const [x, y] = placeOf(value, ask.options.length, badge, radius)
          const placed = at(value)
          return (
            <Spot
              key={value}
              aria-label={placed.length ? `${words}: ${placed.map((each) => each.words).join(', ')}` : words}
              aria-pressed={ask.values.includes(value)}
              data-taken={placed.length > 0 || undefined}
              data-gap={value.startsWith('gap') || undefined}
              onPress={() => answer(ask, ask.values.includes(value) ? [] : [value])}
              style={{ left: size / 2 + x - SPOT / 2, top: size / 2 + y - SPOT / 2 }}
            >
              {signOf(value)}
            </Spot>
          )
        })}
      </Round>
    </Wrap>
  )
}

const Wrap = styled.div`
  display: flex;
  flex-direction: column;
  gap: 16px;
`
const Round = styled.div`
  position: relative;
  max-width: 100%;
  margin: 0 auto;
  > svg {
    position: absolute;
    inset: 0;
  }
`
const Spot = styled(Button)`
  position: absolute;
  width: ${SPOT}px;
  height: ${SPOT}px;
  border: 1.5px solid transparent;
  border-radius: 50%;
  background: transparent;
  color: var(--ink);
  font: 600 18px var(--slab);
  cursor: pointer;
  &[data-gap] {
    color: var(--soft);
  }
  &[data-taken] {
    border-color: var(--ink);
  }
  &[aria-pressed='true'] {
    background: var(--ink);
    color: var(--on-ink);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--ink);
    outline-offset: 2px;
  }
`
