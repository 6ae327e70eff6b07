import { newId } from '../domain/ids'
import { api, unwrap, type Schemas } from './client'

export type WalkAsked = Omit<Schemas['WalkIn'], 'id'>

/** Begin a walk; `id` is the device’s own, so that asking twice begins one. */
export const startWalk = (asked: Partial<WalkAsked>, id: string = newId()): Promise<Schemas['WalkOut']> =>
  unwrap(
    api.POST('/api/inspect/walks', {
      body: { name: '', tags: [], kind: '', place: '', kit: '', going_out: false, ...asked, id },
    }),
  )
