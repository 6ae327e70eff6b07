import styled from 'styled-components'
import { ForReaders } from './ForReaders'
import { useFault } from './useFault'

interface Props {
  label: string
  value: string
  onChange: (value: string) => void
  options: readonly (readonly [value: string, words: string])[]
  hint?: string | undefined
  error?: string | undefined
  hideLabel?: boolean
}

/** The platform's own choice list: it is the one that works best under a thumb. */
export function Select({ label, value, onChange, options, hint, error, hideLabel }: Props) {
  const field = useFault<HTMLLabelElement>(Boolean(error))
  return (
    <Wrap ref={field}>
      {hideLabel ? <ForReaders>{label}</ForReaders> : <span>{label}</span>}
      <select
        aria-label={label}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        aria-invalid={error ? true : undefined}
      >
        {options.map(([each, words]) => (
          <option key={each} value={each}>
            {words}
          </option>
        ))}
      </select>
      {error || hint ? <small>{error ?? hint}</small> : null}
    </Wrap>
  )
}

const Wrap = styled.label`
  display: flex;
  flex-direction: column;
  gap: 3px;
  min-width: 0;
  span {
    font-size: 13.5px;
    color: var(--soft);
  }
  select {
    min-height: 44px;
    padding: 6px 2px;
    border: 0;
    border-bottom: 1.5px solid var(--ink);
    border-radius: 0;
    background: transparent;
    font-size: 17px;
    width: 100%;
  }
  option {
    background: var(--lifted);
    color: var(--ink);
  }
  small {
    font-size: 13px;
    color: var(--soft);
  }
`
