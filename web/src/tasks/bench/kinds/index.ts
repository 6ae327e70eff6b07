import type { StepKind } from '../log/types'
import { clear } from './clear/clear'
import { close } from './close/close'
import type { KindView } from './kind'
import { passes } from './passes/passes'
import { rest } from './rest/rest'
import { stop } from './stop/stop'
import { tick } from './tick/tick'

/** Every kind of step the core has, and no other. */
export const KINDS = { tick, passes, clear, rest, close, stop } satisfies Record<StepKind, KindView>
