import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Main, Plain } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'

type Stands = Schemas['Verdict']

export const VERDICTS: { value: Stands; words: string }[] = [
  { value: 'nothing', words: 'nothing' },
  { value: 'clear', words: 'clear it' },
  { value: 'clear-recheck', words: 'clear it, look again' },
  { value: 'repair', words: 'repair' },
  { value: 'replace-next', words: 'replace, next bench day' },
  { value: 'replace-now', words: 'replace before it goes out' },
  { value: 'out-of-service', words: 'out of service' },
]

interface Props {
  part: string
  now: Stands
  onKeep: (stands: Stands, reason: string) => void
  onClose: () => void
}

/** A person decides otherwise than the rules, and says why, once; the rule it goes against is counted. */
export function OverruleSheet({ part, now, onKeep, onClose }: Props) {
  const [stands, setStands] = useState<Stands>(now)
  const [reason, setReason] = useState('')
  const [tried, setTried] = useState(false)
  const said = reason.trim()
  const problem = !tried
    ? undefined
    : stands === now
      ? 'Choose what stands instead.'
      : said
        ? undefined
        : 'Say why, in a few words; it stays with the record.'
  return (
    <Dialog title={`${part}: decide otherwise`} open wide onClose={onClose}>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          setTried(true)
          if (stands === now || !said) return
          onKeep(stands, said.slice(0, 200))
          onClose()
        }}
      >
        <Choice<Stands> label="What stands" value={stands} onChange={setStands} options={VERDICTS} />
        <Field
          label="Why"
          value={reason}
          onChange={setReason}
          name="reason"
          error={problem}
          autoComplete="off"
        />
        <p>
          <Main type="submit">It stands so</Main>
          <Plain onPress={onClose}>Leave it as it is</Plain>
        </p>
      </Form>
    </Dialog>
  )
}

const Form = styled.form`
  display: grid;
  gap: 18px;
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
  }
`
