import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, unwrap } from '../../../../api/client'
import { keys } from '../../../../api/keys'
import { mayChange, useSession } from '../../../../api/session'
import { Quiet } from '../../../../ui/Button'
import { Problem } from '../../../../ui/Page'
import type { Bench } from '../../log/types'
import { Panel, Say, Why } from '../../parts'

export function ClosedPanel({ bench }: { bench: Bench }) {
  const queries = useQueryClient()
  const session = useSession()
  const again = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/bench/jobs/{job_id}/open-again', { params: { path: { job_id: bench.id } } })),
    onSuccess: () => {
      for (const queryKey of [keys.job(bench.id), keys.today, ['sheet']])
        void queries.invalidateQueries({ queryKey })
    },
  })
  return (
    <Panel>
      <Say>Closed. It is in {bench.name}’s history.</Say>
      <Why>
        <Link to={`/drums/${bench.tag}`}>
          <u>See the drum</u>
        </Link>
      </Why>
      {mayChange(session.data) ? (
        <>
          <Why>
            Too soon? Within a day, who closed it or an owner can open it again: shelf, fitting and checks go
            back to what they were.
          </Why>
          <div>
            <Quiet onPress={() => again.mutate()} isDisabled={again.isPending}>
              Open it again
            </Quiet>
          </div>
          {again.error ? <Problem>{again.error.message}</Problem> : null}
        </>
      ) : null}
    </Panel>
  )
}
