import { useMutation, useQueryClient } from '@tanstack/react-query'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { shortDate } from '../../domain/dates'
import { Plain } from '../../ui/Button'
import { Owed, Soft } from '../../ui/Page'
import { OpenList } from './OpenList'

type Finding = Schemas['StandingFinding']
const OWED: Record<Finding['owed'], string> = {
  replace: 'to replace',
  fetch: 'to fetch',
  repair: 'to repair',
  qualified: 'for a qualified person',
  adjust: 'to put right',
  look: 'to look at',
}

interface Props {
  findings: Finding[]
  tag: string
  mayChange: boolean
}

/** What was found on this drum and is owed since. */
export function Standing({ findings, tag, mayChange }: Props) {
  const queries = useQueryClient()
  const right = useMutation({
    mutationFn: (finding_id: number) =>
      unwrap(api.POST('/api/bench/findings/{finding_id}/put-right', { params: { path: { finding_id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.sheet(tag) }),
  })
  if (!findings.length) return null
  return (
    <OpenList aria-label="Found on this drum">
      <h2>Found</h2>
      <ul>
        {findings.map((each) => (
          <li key={each.id}>
            <div>
              <b>
                {each.words}
                {each.place ? `, ${each.place}` : ''}
              </b>{' '}
              {each.degree > 1 ? <Owed>{OWED[each.owed]}</Owed> : <Soft>slight</Soft>}
              <Soft as="p">
                {shortDate(new Date(each.found_at))} by {each.by || 'someone'}: {each.note || each.answer}
              </Soft>
            </div>
            {mayChange ? <Plain onPress={() => right.mutate(each.id)}>Put right</Plain> : null}
          </li>
        ))}
      </ul>
    </OpenList>
  )
}
