import type { Means } from '../../log/types'
import { NumberEntry } from './NumberEntry'
import type { Reading } from './reading'

interface Props {
  /** What is read: 'rod 3', 'the middle'. */
  what: string
  round: number
  means: Means
  reading: Reading
  letterKeys?: Readonly<Record<string, () => void>>
}

/** What is read is typed. */
export function TypeIt({ what, round, means, reading, letterKeys }: Props) {
  const { typed, setTyped, problem, doubt, keep, step } = reading
  return (
    <NumberEntry
      {...{ what, round, means, typed, problem }}
      asked={doubt !== null}
      onTyped={setTyped}
      onKeep={keep}
      onStep={step}
      {...(letterKeys ? { letterKeys } : {})}
    />
  )
}
