export { useOutbox } from './hooks'
export { begin, caughtUp, device, flush, putAway, record, type Link, type Outbox } from './outbox'
export type { Body, Entry } from './store'
