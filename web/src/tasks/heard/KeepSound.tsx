import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Switch } from 'react-aria-components'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Plain, Quiet } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Problem, Soft } from '../../ui/Page'

type Kept = Schemas['KeptOut']

const megabytes = (bytes: number): string => (bytes / 1024 / 1024).toFixed(bytes < 10_000_000 ? 1 : 0)

/** One's own consent to one's taps being kept, and the way to delete them. */
export function KeepSound({ job, may }: { job: string; may: boolean }) {
  const queries = useQueryClient()
  const [asking, ask] = useState(false)
  const kept = useQuery({ queryKey: keys.kept, queryFn: () => unwrap(api.GET('/api/hearing/kept')) })
  const take = (now: Kept) => {
    queries.setQueryData(keys.kept, now)
    void queries.invalidateQueries({ queryKey: keys.heard(job) })
    ask(false)
  }
  const agree = useMutation({
    mutationFn: (keeps: boolean) => unwrap(api.PUT('/api/hearing/kept', { body: { keeps_sound: keeps } })),
    onSuccess: take,
  })
  const ofJob = useMutation({
    mutationFn: () =>
      unwrap(api.DELETE('/api/hearing/jobs/{job_id}/sounds', { params: { path: { job_id: job } } })),
    onSuccess: take,
  })
  const all = useMutation({ mutationFn: () => unwrap(api.DELETE('/api/hearing/kept')), onSuccess: take })
  if (!kept.data || !may) return null
  const { keeps_sound: keeps, taps, bytes, most_bytes: most } = kept.data
  const problem = agree.error ?? ofJob.error ?? all.error
  return (
    <section aria-label="Keeping sound">
      <h2>Keeping sound</h2>
      <Consent isSelected={keeps} onChange={(next) => agree.mutate(next)}>
        <i aria-hidden />
        Keep the sound of my taps
      </Consent>
      <Soft as="p">
        Off unless you say so. It stays on this server and within this workshop, whose people can play it;{' '}
        {megabytes(most)} MB for all, the oldest goes first. What a tap read and looked like is kept either
        way. The simulated drum’s sound is nobody’s and is always kept.
      </Soft>
      <p>
        {taps ? `${taps} of your taps are kept, ${megabytes(bytes)} MB.` : 'No sound of yours is kept.'}{' '}
        {taps ? <Quiet onPress={() => ask(true)}>Delete…</Quiet> : null}
      </p>
      {problem ? <Problem>{problem.message}</Problem> : null}
      <Dialog title="Delete kept sound" open={asking} onClose={() => ask(false)}>
        <p>The sound goes for good. Readings and pictures stay in the record.</p>
        <Buttons>
          <Plain onPress={() => ofJob.mutate()}>Delete mine of this job</Plain>
          <Plain onPress={() => all.mutate()}>Delete all of mine</Plain>
          <Quiet onPress={() => ask(false)} autoFocus>
            Keep it
          </Quiet>
        </Buttons>
      </Dialog>
    </section>
  )
}

const Consent = styled(Switch)`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 48px;
  cursor: pointer;
  font-weight: 550;
  i {
    flex: none;
    width: 44px;
    height: 24px;
    border: 1.5px solid var(--ink);
    border-radius: 12px;
    padding: 3px;
  }
  i::after {
    content: '';
    display: block;
    width: 15px;
    height: 15px;
    border-radius: 50%;
    background: var(--soft);
  }
  &[data-selected] i {
    background: var(--ink);
  }
  &[data-selected] i::after {
    background: var(--on-ink);
    margin-left: 20px;
  }
  &[data-focus-visible] i {
    outline: 3px solid var(--ink);
    outline-offset: 2px;
  }
`
const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`
