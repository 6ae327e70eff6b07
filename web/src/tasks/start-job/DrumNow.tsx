import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Choice } from '../../ui/Choice'

type Begun = Record<string, string>

const WHOLE = [
  { value: 'whole', words: 'as a player left it' },
  { value: 'not', words: 'not as usual', note: 'begun before, turned over, something off' },
] as const
const UP = [
  { value: 'played', words: 'stands as it is played' },
  { value: 'batter', words: 'on the table, batter up' },
  { value: 'resonant', words: 'on the table, resonant up' },
] as const
const HEAD = [
  { value: 'tight', words: 'on, tight' },
  { value: 'slack', words: 'on, rods loose' },
  { value: 'off', words: 'off' },
] as const
const WIRES = [
  { value: 'on', words: 'on' },
  { value: 'strainer', words: 'at the strainer only' },
  { value: 'none', words: 'off the drum' },
] as const
const ROPE = [
  { value: 'tied', words: 'tied' },
  { value: 'open', words: 'end free' },
  { value: 'unlaced', words: 'a third unlaced' },
] as const

/** How the drum is when the job begins, asked once: the plan goes on from there. */
export function DrumNow({
  kind,
  begun,
  onChange,
}: {
  kind: Schemas['DrumKind']
  begun: Begun
  onChange: (begun: Begun) => void
}) {
  const [whole, setWhole] = useState(true)
  const rope = kind === 'rope-bass'
  const say = (name: string, usual: string) => ({
    value: begun[name] ?? usual,
    onChange: (value: string) =>
      onChange(Object.fromEntries(Object.entries({ ...begun, [name]: value }).filter(([, each]) => each))),
  })
  return (
    <Group>
      <Choice
        label="The drum now"
        value={whole ? 'whole' : 'not'}
        onChange={(value) => {
          setWhole(value === 'whole')
          if (value === 'whole') onChange({})
        }}
        options={WHOLE}
      />
      {whole ? null : (
        <Details>
          <Choice label="It" {...say('up', 'played')} options={UP} />
          <Choice label="Batter head" {...say('batter', 'tight')} options={HEAD} />
          <Choice label="Resonant head" {...say('resonant', 'tight')} options={HEAD} />
          {kind.includes('snare') ? <Choice label="Wires" {...say('wires', 'on')} options={WIRES} /> : null}
          {rope ? <Choice label="Rope" {...say('rope', 'tied')} options={ROPE} /> : null}
        </Details>
      )}
    </Group>
  )
}

const Group = styled.section`
  display: flex;
  flex-direction: column;
  gap: 14px;
`
const Details = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 14px 32px;
  padding-left: 16px;
  border-left: 2px solid var(--rule);
`
