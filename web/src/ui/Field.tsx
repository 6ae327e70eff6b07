import type { HTMLInputTypeAttribute, ReactNode, Ref } from 'react'
import { FieldError, Input, Label, Text, TextArea, TextField } from 'react-aria-components'
import styled, { css } from 'styled-components'
import type { Likely } from '../domain/likely'
import { Question, useDoubt } from './Question'
import { useFault } from './useFault'

interface Props {
  label: string
  value: string
  onChange: (value: string) => void
  error?: string | undefined
  hint?: ReactNode
  type?: HTMLInputTypeAttribute
  name?: string
  required?: boolean
  autoComplete?: string
  inputMode?: 'text' | 'decimal' | 'numeric' | 'email'
  list?: string
  rows?: number
  inputRef?: Ref<HTMLInputElement>
  /** What it holds is a proposal: it is in hand at once, and typing replaces it. */
  proposed?: boolean
  /** What such a figure usually is: anything else is asked about. */
  likely?: Likely | null
}

/** A labelled line to write on. An error stands under it and says what to do. */
export function Field({
  label,
  value,
  onChange,
  error,
  hint,
  required,
  rows,
  inputRef,
  proposed,
  likely,
  ...input
}: Props) {
  const field = useFault<HTMLDivElement>(Boolean(error))
  const { doubt, onBlur, onSo } = useDoubt(field, value, likely)
  return (
    <Wrap
      ref={field}
      value={value}
      onChange={onChange}
      onBlur={onBlur}
      isInvalid={Boolean(error)}
      isRequired={required ?? false}
      validationBehavior="aria"
      name={input.name ?? ''}
    >
      <Label>{label}</Label>
      {rows ? (
        <Lines rows={rows} />
      ) : (
        <Line
          ref={inputRef}
          {...input}
          autoFocus={proposed ?? false}
          {...(proposed ? { onFocus: (event) => event.currentTarget.select() } : {})}
        />
      )}
      {hint && !error ? <Hint slot="description">{hint}</Hint> : null}
      <Problem>{error}</Problem>
      {doubt ? <Question doubt={doubt} onPut={onChange} onSo={onSo} /> : null}
    </Wrap>
  )
}

const Wrap = styled(TextField)`
  display: flex;
  flex-direction: column;
  gap: 3px;
  min-width: 0;
  label {
    font-size: 13.5px;
    color: var(--soft);
  }
`

const writing = css`
  width: 100%;
  min-height: 44px;
  padding: 6px 2px;
  border: 0;
  border-bottom: 1.5px solid var(--ink);
  border-radius: 0;
  background: transparent;
  font-size: 18px;
  &[data-focused] {
    background: var(--lifted);
  }
  &[data-invalid] {
    border-bottom-width: 3px;
    border-bottom-style: double;
  }
`
const Line = styled(Input)`
  ${writing}
`
const Lines = styled(TextArea)`
  ${writing}
  resize: vertical;
`
const Hint = styled(Text)`
  font-size: 13px;
  color: var(--soft);
`
const Problem = styled(FieldError)`
  font-size: 14px;
  font-weight: 600;
`
