import { useMutation, useQueryClient } from '@tanstack/react-query'
import { api, unwrap } from '../../../api/client'
import { keys } from '../../../api/keys'

/** Put a job aside with its reason, or take it up again. */
export function useAside(job: string) {
  const queries = useQueryClient()
  const params = { path: { job_id: job } }
  const changed = () =>
    Promise.all(
      [keys.job(job), keys.today, ['sheet']].map((queryKey) => queries.invalidateQueries({ queryKey })),
    )
  const put = useMutation({
    mutationFn: (because: string) =>
      unwrap(api.POST('/api/bench/jobs/{job_id}/aside', { params, body: { because } })),
    onSuccess: changed,
  })
  const take = useMutation({
    mutationFn: () => unwrap(api.DELETE('/api/bench/jobs/{job_id}/aside', { params })),
    onSuccess: changed,
  })
  return { put, take }
}
