import { useMutation } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { startWalk } from '../../api/walks'
import { Key, Plain } from '../../ui/Button'
import { useKeys } from '../../ui/useKeys'

/** Begin a look at this one drum. */
export function LookAtIt({ tag }: { tag: string }) {
  const navigate = useNavigate()
  const start = useMutation({
    mutationFn: () => startWalk({ tags: [tag] }),
    onSuccess: (walk) => void navigate(`/inspect/${walk.id}`),
  })
  useKeys({ x: () => start.mutate() })
  return (
    <Plain isDisabled={start.isPending} onPress={() => start.mutate()}>
      Inspect <Key>X</Key>
    </Plain>
  )
}
