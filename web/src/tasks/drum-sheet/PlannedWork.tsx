import { useQuery } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { useDropPlanned } from '../../api/planned'
import { PlannedRows } from '../../ui/PlannedRows'
import { OpenList } from './OpenList'

/** Work that was decided for this drum and not begun: by when, with which head promised. */
export function PlannedWork({ tag, mayChange }: { tag: string; mayChange: boolean }) {
  const planned = useQuery({
    queryKey: [...keys.planned, tag],
    queryFn: () => unwrap(api.GET('/api/planned', { params: { query: { tag } } })),
  })
  const drop = useDropPlanned('from the drum’s sheet')
  if (!planned.data?.length) return null
  return (
    <OpenList aria-label="Planned for this drum">
      <h2>Planned</h2>
      <PlannedRows rows={planned.data} ofOneDrum onDrop={mayChange ? ({ id }) => drop.mutate(id) : null} />
    </OpenList>
  )
}
