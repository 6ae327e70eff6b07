import { useMutation, useQueryClient } from '@tanstack/react-query'
import { api, unwrap } from './client'
import { keys } from './keys'

/** Planned work that is not to be done after all; heads promised to it are free again. */
export function useDropPlanned(because: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (planned_id: string) =>
      unwrap(
        api.POST('/api/planned/{planned_id}/drop', { params: { path: { planned_id } }, body: { because } }),
      ),
    onSuccess: () => {
      for (const queryKey of [keys.planned, keys.today, keys.stock])
        void queries.invalidateQueries({ queryKey })
    },
  })
}
