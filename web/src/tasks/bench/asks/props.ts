import type { Ask } from '../log/types'

/** A question, and where its answer goes: all answers that hold from here on. */
export interface AskProps {
  ask: Ask
  answer: (ask: Ask, values: string[]) => void
  /** The other end, where this is one of a range. */
  other?: Ask | undefined
}
