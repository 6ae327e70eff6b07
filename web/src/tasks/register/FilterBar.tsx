import { useState, type RefObject } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Select } from '../../ui/Select'

export interface Narrowed {
  text: string
  kind: string
  place: string
  owner: string
  kit: string
  state: string
}
export const NO_FILTER: Narrowed = { text: '', kind: '', place: '', owner: '', kit: '', state: '' }

const STATES: [string, string][] = [
  ['in', 'in'],
  ['out', 'out'],
  ['repair', 'in repair'],
  ['retired', 'retired'],
]
const all = (words: string, names: string[]): [string, string][] => [
  ['', words],
  ...names.map((name): [string, string] => [name, name]),
]

/** What is set besides the search, in words. */
function narrowedWords(filter: Narrowed, choices: Schemas['Choices'] | undefined): string {
  const { kind, place, owner, kit, state } = filter
  return [choices?.kinds[kind], place, owner, kit, STATES.find(([each]) => each === state)?.[1]]
    .filter(Boolean)
    .join(', ')
}

interface Props {
  filter: Narrowed
  onChange: (filter: Narrowed) => void
  choices: Schemas['Choices'] | undefined
  searchRef: RefObject<HTMLInputElement | null>
}

export function FilterBar({ filter, onChange, choices, searchRef }: Props) {
  const set = (name: keyof Narrowed) => (value: string) => onChange({ ...filter, [name]: value })
  const kinds: [string, string][] = Object.entries(choices?.kinds ?? {})
  const narrowed = Object.values(filter).some(Boolean)
  const [open, setOpen] = useState(false)
  const chosen = narrowedWords(filter, choices)
  return (
    <Bar role="search" data-open={open || undefined} onSubmit={(event) => event.preventDefault()}>
      <Field
        label="Search  /"
        value={filter.text}
        onChange={set('text')}
        inputRef={searchRef}
        name="search"
        autoComplete="off"
      />
      <Fold type="button" aria-expanded={open} onPress={() => setOpen(!open)}>
        {open ? 'Fewer' : chosen || 'Narrow down'}
      </Fold>
      <Select
        label="Kind"
        value={filter.kind}
        onChange={set('kind')}
        options={[['', 'every kind'], ...kinds]}
      />
      <Select
        label="Place"
        value={filter.place}
        onChange={set('place')}
        options={all('every place', choices?.places ?? [])}
      />
      <Select
        label="Owner"
        value={filter.owner}
        onChange={set('owner')}
        options={all('every owner', choices?.owners ?? [])}
      />
      <Select
        label="Kit"
        value={filter.kit}
        onChange={set('kit')}
        options={all('every kit', choices?.kits ?? [])}
      />
      <Select
        label="State"
        value={filter.state}
        onChange={set('state')}
        options={[['', 'every state'], ...STATES]}
      />
      <Plain type="button" isDisabled={!narrowed} onPress={() => onChange(NO_FILTER)}>
        All
      </Plain>
    </Bar>
  )
}

const Bar = styled.form`
  display: grid;
  grid-template-columns: minmax(150px, 1.6fr) repeat(5, minmax(110px, 1fr)) auto;
  align-items: end;
  gap: 10px 20px;
  padding: 12px 28px 14px;
  border-bottom: 1px solid var(--ink);
  position: sticky;
  top: 0;
  background: var(--ground);
  z-index: 2;
  @media (max-width: 1000px) {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  @media (max-width: 700px) {
    position: static;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    padding: 10px 16px 12px;
    &:not([data-open]) > label,
    &:not([data-open]) > button:last-of-type {
      display: none;
    }
  }
`
/** On a phone the choices fold behind one button that says what is set. */
const Fold = styled(Plain)`
  display: none;
  @media (max-width: 700px) {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`
