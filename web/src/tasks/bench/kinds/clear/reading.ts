import type { Misread } from '../../../../domain/misread'
import type { Lap } from '../../log/types'
import type { Listening } from './listening/listening'

/** A chance as it is said: nothing is certain. */
export const inHundred = (chance: number): number => Math.min(99, Math.round(100 * chance))

/** A reading that cannot be, and the three answers. */
export interface Doubt {
  of: Misread
  /** It is still in the field, and not kept yet. */
  pending: boolean
  put: (value: number) => void
  again: () => void
  isSo: () => void
}

export interface Reading {
  rod: number | null
  typed: string
  problem: string
  /** Asked about before anything is turned by it. */
  doubt: Doubt | null
  setTyped: (typed: string) => void
  choose: (rod: number, text?: string) => void
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
  /** Turn and tap: the rod just turned is tapped, and what is left is planned again. */
  turnAndTap: boolean
  setTurnAndTap: (on: boolean) => void
  /** The rod in hand is to be turned and then tapped now. */
  tapping: boolean
  /** A tap was just taken, and what is left is being worked out; without the server it goes on as planned in a moment. */
  working: boolean
  listening: Listening
}
