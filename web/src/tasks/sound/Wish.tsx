import type { Schemas } from '../../api/client'
import { Choice } from '../../ui/Choice'
import { Field } from '../../ui/Field'

export type By = 'batter' | 'fundamental'
/** The sound that follows from the drum alone, without a pitch given. */
export const LOWEST = 'lowest'

interface Props {
  choices: Schemas['SoundOut']['choices']
  heard: string
  setHeard: (heard: string) => void
  by: By
  setBy: (by: By) => void
  typed: string
  setTyped: (typed: string) => void
}

/** What the drum should sound like, and the pitch it is given by. */
export function Wish({ choices, heard, setHeard, by, setBy, typed, setTyped }: Props) {
  return (
    <>
      <Choice
        label="It should be"
        columns={2}
        value={heard}
        onChange={setHeard}
        options={choices.map((each) => ({ value: each.id, words: each.heard, note: each.how }))}
      />
      {heard === LOWEST ? null : (
        <>
          <Choice<By>
            label="Given"
            columns={2}
            value={by}
            onChange={(next) => {
              setBy(next)
              setTyped('')
            }}
            options={[
              { value: 'batter', words: 'batter', note: 'at its rods' },
              { value: 'fundamental', words: 'whole drum', note: 'tapped in the middle' },
            ]}
          />
          <Field
            label={by === 'batter' ? 'Batter, at the rods' : 'The drum’s own note'}
            value={typed}
            onChange={setTyped}
            hint="hertz, or a note such as F3 +12"
            name="wanted"
          />
        </>
      )}
    </>
  )
}
