export { useOutbox } from './hooks'
export { begin, caughtUp, device, flush, putAway, record, recordSeen, type Link, type Outbox } from './outbox'
export type { BenchEntry, Body, Entry, WalkBody, WalkEntry } from './store'
