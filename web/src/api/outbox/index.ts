export { useOutbox, useOwnEntries } from './hooks'
export {
  begin,
  caughtUp,
  device,
  flush,
  putAway,
  record,
  recordCallout,
  recordSeen,
  type Link,
  type Outbox,
} from './outbox'
export type { BenchEntry, Body, CalloutBody, CalloutEntry, Entry, WalkBody, WalkEntry } from './store'
