import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { shortDate } from '../../domain/dates'
import { Quiet } from '../../ui/Button'
import { Owed, Soft } from '../../ui/Page'
import { OpenList } from './OpenList'

/** Work that was decided for this drum and not begun: by when, with which head promised. */
export function PlannedWork({ tag, mayChange }: { tag: string; mayChange: boolean }) {
  const queries = useQueryClient()
  const key = [...keys.planned, tag]
  const planned = useQuery({
    queryKey: key,
    queryFn: () => unwrap(api.GET('/api/planned', { params: { query: { tag } } })),
  })
  const drop = useMutation({
    mutationFn: (planned_id: string) =>
      unwrap(
        api.POST('/api/planned/{planned_id}/drop', {
          params: { path: { planned_id } },
          body: { because: 'from the drum’s sheet' },
        }),
      ),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: key })
      void queries.invalidateQueries({ queryKey: keys.today })
    },
  })
  if (!planned.data?.length) return null
  return (
    <OpenList aria-label="Planned for this drum">
      <h2>Planned</h2>
      <ul>
        {planned.data.map((each) => (
          <li key={each.id}>
            <div>
              <Link to={`/drums/${tag}/start?work=${each.work}&part=${each.part}`}>
                <b>
                  <u>{each.title}</u>
                </b>
              </Link>{' '}
              {each.days_late > 0 ? <Owed>{each.days_late} days late</Owed> : null}
              <Soft as="p">
                by {shortDate(new Date(each.due_on))}
                {Object.values(each.heads)
                  .map((head) => `, ${head.head} promised`)
                  .join('')}
                ; {each.why}, {each.made_by}
              </Soft>
            </div>
            {mayChange ? <Quiet onPress={() => drop.mutate(each.id)}>Drop it</Quiet> : null}
          </li>
        ))}
      </ul>
    </OpenList>
  )
}
