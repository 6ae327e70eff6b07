import { useQuery, useQueryClient } from '@tanstack/react-query'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'

export type Ways = Schemas['SignInWays']

/** How one signs in beside the password. */
export const useWays = () =>
  useQuery({ queryKey: keys.signInWays, queryFn: () => unwrap(api.GET('/api/session/ways')) })

/** Another set of ways came back from a change. */
export function useWaysChanged() {
  const queries = useQueryClient()
  return (ways: Ways) => queries.setQueryData(keys.signInWays, ways)
}
