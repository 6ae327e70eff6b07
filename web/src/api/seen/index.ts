export { useOldest } from './hooks'
export { askOrRemember, forget, makeWay, note, seenBy, tidy, written } from './seen'
