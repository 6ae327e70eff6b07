import { useState } from 'react'
import styled from 'styled-components'
import { Main, Plain, Quiet } from '../../../ui/Button'
import { Dialog } from '../../../ui/Dialog'
import { Field } from '../../../ui/Field'
import { Problem, Soft } from '../../../ui/Page'
import { useAside } from './useAside'

const REASONS = ['Begun by mistake', 'Another drum was meant', 'Not now']

/** Why a job is put aside; nothing of it counts as done, and it can be taken up again. */
export function AsideSheet({ job, onClose }: { job: string; onClose: () => void }) {
  const [because, setBecause] = useState('')
  const { put } = useAside(job)
  const aside = () => put.mutate(because.trim(), { onSuccess: onClose })
  return (
    <Dialog title="Put this job aside" open onClose={onClose}>
      <Soft>
        Nothing of it counts as done: no head changed, nothing taken from the shelf, no check answered. What
        was entered stays with it, and it can be taken up again.
      </Soft>
      <Row>
        {REASONS.map((reason) => (
          <Plain key={reason} onPress={() => setBecause(reason)} aria-pressed={because === reason}>
            {reason}
          </Plain>
        ))}
      </Row>
      <Field label="Why" value={because} onChange={setBecause} />
      {put.error ? <Problem>{put.error.message}</Problem> : null}
      <Row>
        <Main onPress={aside} isDisabled={!because.trim() || put.isPending}>
          Put aside
        </Main>
        <Quiet onPress={onClose}>Go on with it</Quiet>
      </Row>
    </Dialog>
  )
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`
