import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { Plain, Quiet } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'

/** Retire a drum, bring it back, or delete one that was entered by mistake. */
export function Leaving({ tag, state }: { tag: string; state: string }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [sure, setSure] = useState(false)
  const path = { tag }
  const done = (to: string) => () => {
    for (const key of ['drums', 'drum', 'sheet', 'today']) void queries.invalidateQueries({ queryKey: [key] })
    void navigate(to)
  }
  const retired = state === 'retired'
  const retire = useMutation({
    mutationFn: () =>
      unwrap(
        retired
          ? api.DELETE('/api/register/drums/{tag}/retired', { params: { path } })
          : api.PUT('/api/register/drums/{tag}/retired', { params: { path } }),
      ),
    onSuccess: done(`/drums/${tag}`),
  })
  const gone = useMutation({
    mutationFn: () => unwrap(api.DELETE('/api/register/drums/{tag}', { params: { path } })),
    onSuccess: done('/drums'),
  })
  const error = retire.error ?? gone.error
  return (
    <Row aria-label="Leaving">
      <Quiet isDisabled={retire.isPending} onPress={() => retire.mutate()}>
        {retired ? 'Bring it back' : 'Retire this drum'}
      </Quiet>
      {sure ? (
        <>
          <Plain isDisabled={gone.isPending} onPress={() => gone.mutate()}>
            Yes, delete it
          </Plain>
          <Soft>Only a drum without a history goes; every other is retired.</Soft>
        </>
      ) : (
        <Quiet onPress={() => setSure(true)}>Entered by mistake: delete it</Quiet>
      )}
      {error ? <Problem>{error.message}</Problem> : null}
    </Row>
  )
}

const Row = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
`
