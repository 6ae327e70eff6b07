import { useSyncExternalStore } from 'react'
import { snapshot, subscribe } from './queue'
import type { Taken } from './store'

export { addPhoto, beginPhotos, letGo } from './queue'
export { smaller } from './smaller'
export type { Taken } from './store'
/** Photos still on this device. */
export const useTaken = (): readonly Taken[] => useSyncExternalStore(subscribe, snapshot)
