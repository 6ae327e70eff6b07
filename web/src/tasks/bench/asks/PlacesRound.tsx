import { useState } from 'react'
import styled from 'styled-components'
import { Button } from 'react-aria-components'
import { Choice } from '../../../ui/Choice'
import type { Ask } from '../log/types'
import type { AskProps } from './Asks'

interface Props {
  asks: Ask[]
  badge: string
  answer: AskProps['answer']
}

const SPOT = 44

/** Where a place is on the ring, in turns clockwise from the top: rod 1 is the first clockwise of the badge, or at it. */
export function turnOf(value: string, places: number, badge: string): number {
  const [kind, number] = value.split('-')
  if (kind === 'hour') return Number(number) / 12
  const rods = places / 2
  const first = badge === 'between' ? 0.5 / rods : 0
  return (Number(number) - 1 + (kind === 'gap' ? 0.5 : 0)) / rods + first
}

/** Where things sit round the drum: what is placed is chosen, then its place is tapped on the drum seen from above. */
export function PlacesRound({ asks, badge, answer }: Props) {
  const [name, setName] = useState(asks[0]?.name ?? '')
  const ask = asks.find((each) => each.name === name) ?? asks[0]
  if (!ask) return null
  const radius = Math.max(118, (ask.options.length * (SPOT + 2)) / (2 * Math.PI))
  const size = 2 * radius + SPOT + 4
  const at = (value: string) => asks.filter((each) => each.values.includes(value))
  return (
    <Wrap>
      <Choice
        label="Tap where it sits"
        value={ask.name}
        onChange={setName}
        options={asks.map((each) => ({ value: each.name, words: each.words, note: each.said || 'not said' }))}
      />
      <Ring style={{ width: size, height: size }} role="group" aria-label={ask.words}>
        <svg width={size} height={size} aria-hidden="true">
          <circle cx={size / 2} cy={size / 2} r={radius} />
          <path d={`M${size / 2 - 9} ${size / 2 - radius + 34} h18 l-9 14 z`} />
        </svg>
        {ask.options.map(({ value, words }) => {
          const angle = 2 * Math.PI * turnOf(value, ask.options.length, badge)
          const placed = at(value)
          return (
            <Spot
              key={value}
              aria-label={placed.length ? `${words}: ${placed.map((each) => each.words).join(', ')}` : words}
              aria-pressed={ask.values.includes(value)}
              data-taken={placed.length > 0 || undefined}
              onPress={() => answer(ask, ask.values.includes(value) ? [] : [value])}
              style={{
                left: size / 2 + radius * Math.sin(angle) - SPOT / 2,
                top: size / 2 - radius * Math.cos(angle) - SPOT / 2,
              }}
            >
              {value.startsWith('gap') ? '·' : value.split('-')[1]}
            </Spot>
          )
        })}
      </Ring>
    </Wrap>
  )
}

const Wrap = styled.div`
  display: flex;
  flex-direction: column;
  gap: 16px;
`
const Ring = styled.div`
  position: relative;
  max-width: 100%;
  margin: 0 auto;
  svg {
    position: absolute;
    inset: 0;
  }
  circle {
    fill: none;
    stroke: var(--rule);
    stroke-width: 2;
  }
  path {
    fill: var(--ink);
  }
`
const Spot = styled(Button)`
  position: absolute;
  width: ${SPOT}px;
  height: ${SPOT}px;
  border: 1.5px solid transparent;
  border-radius: 50%;
  background: var(--ground);
  color: var(--ink);
  font: 600 18px var(--slab);
  cursor: pointer;
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
