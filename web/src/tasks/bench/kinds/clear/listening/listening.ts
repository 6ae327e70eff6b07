import type { Device } from '../../../../../ui/ear/microphone'
import type { Heard } from './hear'

export interface Listening {
  state: 'off' | 'opening' | 'on' | 'simulated'
  level: number
  words: string
  /** Off, and nothing has spoken against listening yet. */
  ready: boolean
  /** The last tap that was heard, refused ones too. */
  last: Heard | null
  /** Take what may have been meant instead, in place of what the last tap was read as. */
  takeSecond: () => void
  device: string
  others: Device[]
  start: () => void
  /** Listen with another microphone. */
  use: (device: string) => void
  simulate: () => void
  stop: () => void
  files: (files: readonly File[]) => void
}
