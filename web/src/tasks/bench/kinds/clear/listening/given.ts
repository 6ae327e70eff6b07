import type { Heard } from './hear'

/** What is listened for, and where what is heard goes. */
export interface Given {
  job: string
  /** The clearing step, and its round. */
  step: string
  lap: number
  /** The rod that is to be tapped next, null when every rod is read. */
  rod: number | null
  /** Rods in the order they are tapped, and how many places the head has. */
  rods: readonly number[]
  count: number
  /** The middle is tapped now instead. */
  middle: boolean
  /** The other head lies on a cloth, and does not ring along. */
  otherMuted: boolean
  /** What the rod in hand is turned before it is tapped; null where rods are only tapped. */
  turns_32: number | null
  /** How many taps between turns there were in this round. */
  between: number
  keep: (rod: number, heard: Heard) => void
  keepMiddle: (heard: Heard) => void
}
