import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Soft } from '../../ui/Page'
import { Select } from '../../ui/Select'

interface Props {
  seen: Schemas['DrumsSeen']
  onChange: (column: number, field: string) => void
}

/** What each column of the list is read as; it is remembered for the next list with these headings. */
export function Columns({ seen, onChange }: Props) {
  const options = [['', 'nothing'] as const, ...seen.fields.map((each) => [each.name, each.words] as const)]
  return (
    <List aria-label="Which column says what">
      {seen.columns.map((each, n) => (
        <li key={n}>
          <span>
            <b>{each.heading}</b>
            <Soft>{each.sample.filter(Boolean).join('; ')}</Soft>
          </span>
          <Select
            label={`${each.heading} is`}
            hideLabel
            value={each.field}
            onChange={(field) => onChange(n, field)}
            options={options}
          />
        </li>
      ))}
    </List>
  )
}

const List = styled.ul`
  && li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 200px;
    align-items: center;
    gap: 14px;
  }
  b {
    display: block;
    overflow-wrap: anywhere;
  }
  span > span {
    display: block;
    font-size: 13.5px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
`
