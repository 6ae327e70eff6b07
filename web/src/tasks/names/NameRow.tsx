import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Plain, Quiet } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'

export type Sort = 'place' | 'owner' | 'kit'
type Named = Schemas['NameOut']

interface Props {
  sort: Sort
  named: Named
  all: Named[]
  mayChange: boolean
}

const drums = (count: number): string => (count ? `${count} ${count === 1 ? 'drum' : 'drums'}` : 'no drum')

/** One name, and what may be done with it. Merging two says so before it is done. */
export function NameRow({ sort, named, all, mayChange }: Props) {
  const queries = useQueryClient()
  const [to, setTo] = useState<string | null>(null)
  const done = () => {
    setTo(null)
    void queries.invalidateQueries({ queryKey: keys.names })
    void queries.invalidateQueries({ queryKey: keys.choices })
    void queries.invalidateQueries({ queryKey: ['drums'] })
  }
  const rename = useMutation({
    mutationFn: (next: string) =>
      unwrap(
        api.POST('/api/register/names/{sort}', {
          params: { path: { sort } },
          body: { name: named.name, to: next },
        }),
      ),
    onSuccess: done,
  })
  const away = useMutation({
    mutationFn: () =>
      unwrap(
        api.DELETE('/api/register/names/{sort}', { params: { path: { sort }, query: { name: named.name } } }),
      ),
    onSuccess: done,
  })
  const next = to?.trim() ?? ''
  const twin = all.find((each) => each.name !== named.name && each.name.toLowerCase() === next.toLowerCase())
  const error = rename.error ?? away.error
  return (
    <Row>
      <span>
        <b>{named.name}</b> <Soft>{drums(named.drums)}</Soft>
      </span>
      {mayChange && to === null ? (
        <span>
          <Quiet aria-label={`Rename ${named.name}`} onPress={() => setTo(named.name)}>
            Rename
          </Quiet>
          {named.drums ? null : (
            <Quiet aria-label={`Take ${named.name} away`} onPress={() => away.mutate()}>
              Take away
            </Quiet>
          )}
        </span>
      ) : null}
      {to === null ? null : (
        <form
          onSubmit={(event) => {
            event.preventDefault()
            if (next && next !== named.name) rename.mutate(next)
          }}
        >
          <Field label="New name" value={to} onChange={setTo} name="to" />
          <Plain type="submit" isDisabled={!next || next === named.name || rename.isPending}>
            {twin ? `Merge with ${twin.name}` : 'Rename'}
          </Plain>
          <Quiet onPress={() => setTo(null)}>Leave it</Quiet>
        </form>
      )}
      {error ? <Problem>{error.message}</Problem> : null}
    </Row>
  )
}

const Row = styled.li`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 4px 12px;
  min-height: 54px;
  border-bottom: 1px solid var(--rule);
  b {
    font: 600 17px var(--slab);
  }
  form {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 8px;
    width: 100%;
    padding-bottom: 10px;
  }
  form > :first-child {
    flex: 1 1 160px;
  }
`
