import { useMutation } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { startWalk } from '../../api/walks'
import { Plain } from '../../ui/Button'

/** Begin a look at this one drum. */
export function LookAtIt({ tag }: { tag: string }) {
  const navigate = useNavigate()
  const start = useMutation({
    mutationFn: () => startWalk({ tags: [tag] }),
    onSuccess: (walk) => void navigate(`/inspect/${walk.id}`),
  })
  return (
    <Look isDisabled={start.isPending} onPress={() => start.mutate()}>
      Inspect
    </Look>
  )
}

const Look = styled(Plain)`
  min-height: 44px;
  margin: -8px 0;
`
