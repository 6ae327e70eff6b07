import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, unwrap, type Schemas } from '../../../api/client'
import { keys } from '../../../api/keys'
import type { Bench, Step } from '../log/types'

export interface Laid {
  name: string
  place: string
  short: boolean
  /** How many lie there, where that is counted. */
  left: number | null
  /** Its place is kept with the stock; it is not said here. */
  counted: boolean
}

/** As lists of tools name it; where the head is chosen it stands there by its own name. */
const NEW_HEAD = 'the new head'

/** What a job takes, in the order it is first taken, with where each lies. */
export function laidOut(bench: Bench, step: Step, known: readonly Schemas['ThingOut'][]): Laid[] {
  const heads = bench.heads
    .filter((head) => head.new_head)
    .map((head) => ({
      name: `${head.new_head}, ${head.side}`,
      place: head.shelf,
      short: head.left !== null && head.left < 1,
      left: head.left,
      counted: true,
    }))
  const things = step.tools
    .filter((name) => name !== NEW_HEAD || !heads.length)
    .map((name) => {
      const said = known.find((each) => each.name === name)
      return { name, place: said?.place ?? '', short: said?.short ?? false, left: null, counted: false }
    })
  return [...heads, ...things]
}

/** Where things lie, as this workshop said. */
export function useShelf() {
  const queries = useQueryClient()
  const things = useQuery({
    queryKey: keys.shelf,
    queryFn: () => unwrap(api.GET('/api/shelf/things')),
  })
  const keep = useMutation({
    mutationFn: (body: Schemas['ThingIn']) => unwrap(api.PUT('/api/shelf/things', { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.shelf }),
  })
  return { things: things.data ?? [], keep }
}
