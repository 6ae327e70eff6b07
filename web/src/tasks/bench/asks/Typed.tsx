import { useState } from 'react'
import styled from 'styled-components'
import { between, likelyPort, type Likely } from '../../../domain/likely'
import { numberTyped } from '../../../domain/numbers'
import { Plain } from '../../../ui/Button'
import { Field } from '../../../ui/Field'
import type { Ask } from '../log/types'
import type { AskProps } from './props'

const HINTS: Record<Ask['unit'], string> = {
  pitch: '98.0, or G2 +12',
  length: 'mm, cm or inches',
  count: '10',
  '': '',
}
/** By question, else by what is asked for. Rope drums ask for most of these. */
const LIKELY: Readonly<Record<string, Likely>> = {
  pitch: between(20, 120, 'Large rope drums sound between 20 and 120 Hz.'),
  count: between(4, 40, 'There are usually 4 to 40.'),
  'port-size': likelyPort('mm'),
  'rope-hoop': { ...between(0.8, 3, 'A hoop is usually 20 to 75 mm high.'), unit: 'mm' },
}
const NUMBER = /^\s*(\d+([.,]\d+)?|(\d+ )?\d+\/[1-9]\d*)\s*(hz|mm|cm|in|")?\s*$/i
const NOTE = /^\s*[a-g][#b♯♭]?-?\d(\s*[+-−]\s*\d+)?\s*$/i

/** What this answer usually is; of a range the low end lies below the high one. */
function likelyOf({ name, unit }: Ask, other: Ask | undefined): Likely | undefined {
  const beside = numberTyped(other?.values[0] ?? '')
  const plain = LIKELY[name] ?? LIKELY[unit]
  if (!plain || !other || beside === null) return plain
  return name.includes('low')
    ? { ...plain, to: beside, words: `${other.words} it is ${beside}: this is lower.` }
    : { ...plain, from: beside, words: `${other.words} it is ${beside}: this is higher.` }
}

/** Why a typed answer cannot be read; empty where it can. */
export function unreadable(ask: Pick<Ask, 'unit'>, typed: string): string {
  if (!typed.trim() || ask.unit === '') return ''
  if (ask.unit === 'count') return /^\s*[1-9]\d{0,2}\s*$/.test(typed) ? '' : 'A plain number: 10.'
  if (NUMBER.test(typed) || (ask.unit === 'pitch' && NOTE.test(typed))) return ''
  return ask.unit === 'pitch' ? 'A pitch is hertz or a note: 98, or G2 +12.' : 'A length is a number: 12 mm.'
}

/** An answer written: a pitch, a length, or one's own words. */
export function Typed({ ask, answer, other }: AskProps) {
  const known = new Set(ask.options.map(({ value }) => value))
  const own = ask.values.filter((each) => !known.has(each))
  const [typed, setTyped] = useState(own.join(', '))
  const [asked, setAsked] = useState(false)
  const problem = asked ? unreadable(ask, typed) : ''
  const changed = typed.trim() !== own.join(', ')
  const keep = () => {
    setAsked(true)
    if (unreadable(ask, typed)) return
    const others = ask.many ? ask.values.filter((each) => known.has(each)) : []
    answer(ask, typed.trim() ? [...others, typed.trim()] : others)
  }
  return (
    <Row
      onSubmit={(event) => {
        event.preventDefault()
        keep()
      }}
    >
      <Field
        label={ask.options.length ? 'or in your words' : ask.words}
        value={typed}
        onChange={setTyped}
        error={problem}
        hint={ask.unit && !changed && ask.said !== typed ? ask.said || HINTS[ask.unit] : HINTS[ask.unit]}
        likely={likelyOf(ask, other)}
        name={ask.name}
      />
      <Plain type="submit" isDisabled={!changed}>
        Keep
      </Plain>
    </Row>
  )
}

const Row = styled.form`
  display: flex;
  align-items: flex-start;
  gap: 10px;
  > div {
    flex: 1;
    max-width: 420px;
  }
  > button {
    margin-top: 25px;
  }
`
