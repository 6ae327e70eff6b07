import { useSyncExternalStore } from 'react'
import { snapshot, subscribe, type Room } from './room'

export { askToKeep, insist, isNearlyFull, look, watchRoom, type Room } from './room'
export const useRoom = (): Room => useSyncExternalStore(subscribe, snapshot)
