import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Choice } from '../../ui/Choice'
import { Soft } from '../../ui/Page'

interface Props {
  school: Schemas['SchoolOut']
  value: string
  onChange: (value: string) => void
}

/** One thing the trade disagrees about: the answers, and what speaks for and against the one chosen. */
export function SchoolChoice({ school, value, onChange }: Props) {
  const chosen = school.choices.find((each) => each.value === value)
  return (
    <One>
      <Choice
        label={school.question}
        value={value}
        onChange={onChange}
        options={school.choices.map((each) => ({ value: each.value, words: each.words }))}
      />
      {chosen ? (
        <p>
          {chosen.speaks_for} <Soft>But: {chosen.against}</Soft>
        </p>
      ) : null}
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
