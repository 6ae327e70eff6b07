import { useParams, useSearchParams } from 'react-router'
import { mayChange, useSession } from '../../api/session'
import { Problem } from '../../ui/Page'
import { Waiting } from '../../ui/Waiting'
import { AtDrum } from './AtDrum'
import { firstOpen } from './order'
import { useWalk } from './useWalk'

/** A walk along some drums, or the look at one: at the drum that is asked for, else at the first nobody looked at. */
export function WalkPage() {
  const { walk: id = '' } = useParams()
  const [query] = useSearchParams()
  const session = useSession()
  const walked = useWalk(id)
  const { walk, looks, error } = walked
  if (error) return <Problem>{error.message}</Problem>
  if (!walk || !looks) return <Waiting />
  const asked = walk.drums.find((drum) => drum.tag === query.get('at'))
  const drum = asked ?? firstOpen(walk, looks) ?? walk.drums[0]
  const look = drum && looks.get(drum.tag)
  if (!drum || !look) return <Problem>There is no drum in this walk.</Problem>
  return <AtDrum key={drum.tag} {...{ walk, looks, drum, look, walked }} may={mayChange(session.data)} />
}
