import { useMutation } from '@tanstack/react-query'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { shortDate } from '../../domain/dates'
import { Quiet } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'

const STATE = { used: 'came in', withdrawn: 'taken back', late: 'too old' } as Partial<Record<string, string>>

interface Props {
  invitations: Schemas['InvitationOut'][]
  onChanged: () => unknown
}

/** Links made in the last month, and what became of them. */
export function Invitations({ invitations, onChanged }: Props) {
  const back = useMutation({
    mutationFn: (key: number) =>
      unwrap(api.DELETE('/api/people/invitations/{key}', { params: { path: { key } } })),
    onSettled: () => onChanged(),
  })
  if (!invitations.length) return null
  return (
    <List aria-label="Invitations">
      {invitations.map((each) => (
        <li key={each.id}>
          <span>
            {each.shown_name || each.email || 'somebody'}, {each.role}{' '}
            <Soft>
              {STATE[each.state] ?? `open until ${shortDate(new Date(each.until))}`}; {each.made_by}
            </Soft>
          </span>
          {each.state === 'open' ? (
            <Quiet isDisabled={back.isPending} onPress={() => back.mutate(each.id)}>
              Take back
            </Quiet>
          ) : null}
        </li>
      ))}
      {back.error ? <Problem>{back.error.message}</Problem> : null}
    </List>
  )
}

const List = styled.ul`
  padding-bottom: 22px;
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 10px;
    min-height: 46px;
    border-top: 1px solid var(--rule);
    font-size: 15.5px;
  }
  li > button {
    white-space: nowrap;
  }
`
