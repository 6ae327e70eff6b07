import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Select } from '../../ui/Select'

export type Asked = Required<Schemas['ChooseIn']>
type Side = Schemas['Side']
/** What is chosen: one of the heads, the wires, or what strikes. */
export type What = Side | 'wires' | 'beater'

const USES: { value: Asked['use']; words: string }[] = [
  { value: 'drum-set', words: 'drum set' },
  { value: 'concert', words: 'concert' },
  { value: 'marching', words: 'marching' },
  { value: 'recording', words: 'recording' },
  { value: 'practice', words: 'practice' },
  { value: 'school', words: 'school, everything' },
]
const SOUNDS = [
  'open',
  'warm',
  'bright',
  'dark',
  'punchy',
  'dry',
  'articulate',
  'sensitive',
  'loud',
  'long',
  'short',
  'low',
  'high',
] as const satisfies readonly Asked['sound'][number][]
const NEEDS: { value: Asked['needs'][number]; words: string }[] = [
  { value: 'brushes', words: 'brushes' },
  { value: 'stage-light', words: 'stage light' },
  { value: 'quiet', words: 'quiet' },
  { value: 'lasting', words: 'must last' },
]

const MONTHS = [
  ['0', 'as long as it will'],
  ['3', 'three months'],
  ['6', 'half a year'],
  ['12', 'a year'],
  ['24', 'two years'],
] as const

const toggled = <T,>(list: readonly T[], each: T): T[] =>
  list.includes(each) ? list.filter((one) => one !== each) : [...list, each]

interface Props {
  side: What
  wires: boolean
  beater: boolean
  snareSide: boolean
  asked: Asked
  onSide: (side: What) => void
  onAsked: (asked: Asked) => void
}

/** What is wanted of a head, in players’ words. */
export function Wish({ side, snareSide, wires, beater, asked, onSide, onAsked }: Props) {
  const head = side === 'batter' || side === 'resonant'
  return (
    <Box aria-label="What is wanted">
      <Choice<What>
        label="For what"
        value={side}
        onChange={onSide}
        options={[
          { value: 'batter', words: 'batter' },
          { value: 'resonant', words: snareSide ? 'snare side' : 'resonant' },
          ...(wires ? [{ value: 'wires' as const, words: 'wires' }] : []),
          ...(beater ? [{ value: 'beater' as const, words: 'beater' }] : []),
        ]}
      />
      {side === 'beater' ? null : (
        <Choice
          label="Used for"
          value={asked.use}
          onChange={(use) => onAsked({ ...asked, use })}
          options={USES}
        />
      )}
      <Words role="group" aria-label="It should sound">
        <span>It should sound</span>
        {SOUNDS.map((word) => (
          <Plain
            key={word}
            aria-pressed={asked.sound.includes(word)}
            onPress={() => onAsked({ ...asked, sound: toggled(asked.sound, word) })}
          >
            {word}
          </Plain>
        ))}
      </Words>
      {side === 'beater' ? null : (
        <Words role="group" aria-label="It must serve">
          <span>It must serve</span>
          {NEEDS.filter((need) => head || need.value === 'quiet').map(({ value, words }) => (
            <Plain
              key={value}
              aria-pressed={asked.needs.includes(value)}
              onPress={() => onAsked({ ...asked, needs: toggled(asked.needs, value) })}
            >
              {words}
            </Plain>
          ))}
          {head ? (
            <Plain
              aria-pressed={asked.budget === 'low'}
              onPress={() => onAsked({ ...asked, budget: asked.budget === 'low' ? 'any' : 'low' })}
            >
              low budget
            </Plain>
          ) : null}
        </Words>
      )}
      {head ? (
        <Select
          label="It must last"
          value={String(asked.months)}
          onChange={(months) => onAsked({ ...asked, months: Number(months) })}
          options={MONTHS}
        />
      ) : null}
    </Box>
  )
}

const Box = styled.section`
  display: flex;
  flex-direction: column;
  gap: 18px;
`
const Words = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  > span {
    flex: 1 0 100%;
    font-size: 13.5px;
    color: var(--soft);
  }
  > button {
    min-height: 46px;
    padding: 0 13px;
    border-color: var(--rule);
    font: 500 16px var(--text);
  }
  > button[aria-pressed='true'] {
    border-color: var(--ink);
    background: var(--ink);
    color: var(--on-ink);
  }
`
