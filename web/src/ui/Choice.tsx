import { Label, Radio, RadioGroup } from 'react-aria-components'
import styled from 'styled-components'

interface Props<T extends string> {
  label: string
  value: T | null
  onChange: (value: T) => void
  /** In even columns, when there are many. */
  columns?: number
  options: readonly { value: T; words: string; note?: string; disabled?: boolean }[]
}

/** One of a few, all in sight, each big enough for a greasy thumb. */
export function Choice<T extends string>({ label, value, onChange, columns, options }: Props<T>) {
  return (
    <Group value={value} onChange={(next) => onChange(next as T)}>
      <Label>{label}</Label>
      <div data-columns={columns}>
        {options.map((each) => (
          <Option key={each.value} value={each.value} isDisabled={each.disabled ?? false}>
            {each.words}
            {each.note ? <small>{each.note}</small> : null}
          </Option>
        ))}
      </div>
    </Group>
  )
}

const Group = styled(RadioGroup)`
  > label,
  > span {
    display: block;
    font-size: 13.5px;
    color: var(--soft);
    margin-bottom: 6px;
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  > div[data-columns='2'] {
    display: grid;
    grid-template-columns: 1fr 1fr;
  }
`
const Option = styled(Radio)`
  display: flex;
  flex-direction: column;
  justify-content: center;
  min-height: 48px;
  padding: 6px 14px;
  border: 1.5px solid var(--rule);
  border-radius: 2px;
  cursor: pointer;
  font-weight: 500;
  small {
    font-weight: 400;
    font-size: 13px;
    color: var(--soft);
  }
  &[data-hovered] {
    background: var(--lifted);
  }
  &[data-selected] {
    border-color: var(--ink);
    background: var(--ink);
    color: var(--on-ink);
    small {
      color: inherit;
    }
  }
  &[data-disabled] {
    color: var(--soft);
    cursor: default;
  }
`
