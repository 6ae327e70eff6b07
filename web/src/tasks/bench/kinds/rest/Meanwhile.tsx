import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../../../api/client'
import { keys } from '../../../../api/keys'

type Owed = Schemas['OwedOut']

const leads = (item: Owed): string =>
  item.doing === 'go-on'
    ? `/bench/${item.job_id}`
    : `/drums/${item.tag}/start?work=${item.work}&part=${item.part ?? ''}`

/** While one drum rests: the next that can be worked on, as Today has it. */
export function Meanwhile({ job }: { job: string }) {
  const today = useQuery({ queryKey: keys.today, queryFn: () => unwrap(api.GET('/api/today')) })
  const next = today.data?.items.find(
    (item) =>
      item.job_id !== job && !(item.ready_at && item.doing === 'go-on' && (item.minutes_left ?? 0) > 0),
  )
  if (!next) return null
  return (
    <Line to={leads(next)}>
      <b>
        Meanwhile: {next.action.toLowerCase()}, {next.name}
      </b>
      <span>{next.reason}</span>
    </Line>
  )
}

const Line = styled(Link)`
  display: block;
  padding: 12px 0;
  min-height: 48px;
  border-top: 1px solid var(--rule);
  b {
    display: block;
    font: 600 19px/1.3 var(--slab);
    text-decoration: underline;
  }
  span {
    color: var(--soft);
    font-size: 15px;
  }
`
