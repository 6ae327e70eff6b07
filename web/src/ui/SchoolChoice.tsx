import type { ReactNode } from 'react'
import styled from 'styled-components'
import { Choice } from './Choice'
import { Soft } from './Page'

interface Answer {
  value: string
  words: string
  speaks_for: string
  against: string
  why_not?: string
}

interface Props {
  school: { question: string; choices: Answer[] }
  value: string
  onChange: (value: string) => void
  /** What follows from the answer chosen, where that is known. */
  children?: ReactNode
}

/** One thing the trade disagrees about: the answers, and what speaks for and against the one chosen. */
export function SchoolChoice({ school, value, onChange, children }: Props) {
  const chosen = school.choices.find((each) => each.value === value)
  return (
    <One>
      <Choice
        label={school.question}
        value={value}
        onChange={onChange}
        options={school.choices.map((each) => ({
          value: each.value,
          words: each.words,
          disabled: Boolean(each.why_not),
          ...(each.why_not ? { note: each.why_not } : {}),
        }))}
      />
      {chosen ? (
        <p>
          {chosen.speaks_for} <Soft>But: {chosen.against}</Soft>
        </p>
      ) : null}
      {children}
    </One>
  )
}

const One = styled.div`
  p {
    margin-top: 7px;
    max-width: 62ch;
    font-size: 14.5px;
    line-height: 1.4;
  }
`
