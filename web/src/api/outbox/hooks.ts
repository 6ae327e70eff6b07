import { useSyncExternalStore } from 'react'
import { snapshot, subscribe, type Outbox } from './outbox'

export const useOutbox = (): Outbox => useSyncExternalStore(subscribe, snapshot)
