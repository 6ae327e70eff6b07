import type { Schemas } from '../../api/client'

/** One line of what is owed. */
export type OwedItem = Schemas['OwedOut']
