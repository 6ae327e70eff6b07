import type { Lap } from '../../log/types'
import type { Listening } from './listening/listening'

export interface Reading {
  rod: number | null
  typed: string
  problem: string
  setTyped: (typed: string) => void
  choose: (rod: number) => void
  step: (by: number) => void
  keep: () => void
  allRead: boolean
  /** A gauge is being read beside the pitch. */
  gauging: boolean
  gauge: (on: boolean) => void
  judge: (typed: string) => void
  /** The middle of the head is tapped now, for the drum's note. */
  middle: boolean
  toMiddle: (on: boolean) => void
  /** The other head lies on a cloth; as it was last said on this job. */
  otherMuted: boolean
  muteOther: (on: boolean) => void
  /** The round was tapped otherwise than asked; said once no further tap is to be expected. */
  tapped: Lap['tapped']
  putRight: () => void
  listening: Listening
}
