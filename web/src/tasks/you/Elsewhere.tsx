import { useMutation } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'

/** Out on every other device. */
export function Elsewhere() {
  const out = useMutation({ mutationFn: () => unwrap(api.POST('/api/session/elsewhere')) })
  return (
    <div>
      <Plain isDisabled={out.isPending} onPress={() => out.mutate()}>
        Sign out everywhere else
      </Plain>
      {out.data ? (
        <Soft as="p" role="status">
          {out.data.ended
            ? `${out.data.ended} other ${out.data.ended === 1 ? 'device is' : 'devices are'} signed out.`
            : 'No other device is signed in.'}
        </Soft>
      ) : null}
      {out.error ? <Problem>{out.error.message}</Problem> : null}
    </div>
  )
}
