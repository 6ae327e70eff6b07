import { useState } from 'react'
import styled from 'styled-components'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'
import { Select } from '../../ui/Select'
import type { Kit, Wish } from './useKit'

interface Props {
  kit: Kit
  wish: Wish
  setWish: (wish: Wish) => void
  refused: Record<string, unknown>
}

type Shape = NonNullable<Wish['shape']>

const SHAPES: readonly { value: Shape; words: string; note: string }[] = [
  { value: 'as-it-is', words: 'as it is', note: 'only clean' },
  { value: 'low-and-open', words: 'low', note: 'and open' },
  { value: 'high-and-tight', words: 'high', note: 'and tight' },
]
const STEPS: readonly (readonly [string, string])[] = [
  ['', 'no set step'],
  ['major second', 'a whole tone'],
  ['minor third', 'minor thirds'],
  ['major third', 'major thirds'],
  ['fourth', 'fourths'],
  ['fifth', 'fifths'],
]
const APART: readonly (readonly [string, string])[] = [
  ['0', 'does not matter'],
  ['30', '30 cents'],
  ['50', '50 cents'],
  ['80', '80 cents'],
  ['120', '120 cents'],
]

const known = (options: typeof STEPS, value: string) =>
  options.some(([each]) => each === value) ? options : [...options, [value, value] as const]

/** How the kit should sound: few wishes, all in sight. What one drum should do is asked of that drum. */
export function Wishes({ kit, wish, setWish, refused }: Props) {
  const [against, setAgainst] = useState((wish.against ?? []).join(', '))
  const row = kit.drums.filter((each) => ['tom', 'quad', 'line'].includes(each.role) && !each.left_out)
  return (
    <Box>
      <Choice<Shape>
        label="It should be"
        value={wish.shape ?? 'as-it-is'}
        onChange={(shape) => setWish({ ...wish, shape })}
        options={SHAPES}
      />
      <Two>
        {row.length > 1 ? (
          <Select
            label={row.every((each) => each.role === 'tom') ? 'From tom to tom' : 'From drum to drum'}
            value={wish.step ?? ''}
            onChange={(step) => setWish({ ...wish, step })}
            options={known(STEPS, wish.step ?? '')}
          />
        ) : null}
        <Select
          label="Notes keep apart"
          value={String(wish.apart ?? 50)}
          onChange={(apart) => setWish({ ...wish, apart: Number(apart) })}
          options={known(APART, String(wish.apart ?? 50))}
        />
      </Two>
      <Field
        label="Keep clear of"
        name="against"
        value={against}
        onChange={(text) => {
          setAgainst(text)
          const notes = text.split(',').map((each) => each.trim())
          setWish({ ...wish, against: notes.filter(Boolean) })
        }}
        hint={refused['against'] ? undefined : 'notes others play beside it: E1, 55 Hz'}
      />
    </Box>
  )
}

const Box = styled.div`
  display: flex;
  flex-direction: column;
  gap: 10px;
  [role='radiogroup'] > div {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
  }
`
const Two = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
`
