import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { shortDate } from '../../domain/dates'
import { Plain, Quiet } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem, Soft } from '../../ui/Page'

interface Corrects {
  text: string
  at: string
  by: string
}

/** What a correction corrects, or the way to correct this line: it stays, and the correction stands beside it. */
export function Correction({ tag, entry, may }: { tag: string; entry: Schemas['LogOut']; may: boolean }) {
  const [text, setText] = useState<string | null>(null)
  const queries = useQueryClient()
  const corrects = entry.record['corrects'] as Corrects | undefined
  const save = useMutation({
    mutationFn: (said: string) =>
      unwrap(
        api.POST('/api/register/drums/{tag}/log/{entry_id}/correction', {
          params: { path: { tag, entry_id: entry.id } },
          body: { text: said },
        }),
      ),
    onSuccess: () => {
      setText(null)
      void queries.invalidateQueries({ queryKey: keys.sheet(tag) })
    },
  })
  if (corrects)
    return (
      <Soft as="p">
        The line it corrects, of {shortDate(new Date(corrects.at))}
        {corrects.by ? ` by ${corrects.by}` : ''}: {corrects.text}
      </Soft>
    )
  if (!may) return null
  if (text === null)
    return (
      <div>
        <Quiet onPress={() => setText('')}>Correct this line</Quiet>
      </div>
    )
  return (
    <Row>
      <Field label="What it should say" value={text} onChange={setText} />
      <Plain onPress={() => save.mutate(text.trim())} isDisabled={!text.trim() || save.isPending}>
        Put it beside
      </Plain>
      <Quiet onPress={() => setText(null)}>Leave it</Quiet>
      {save.error ? <Problem>{save.error.message}</Problem> : null}
    </Row>
  )
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 8px 12px;
  > :first-child {
    flex: 1 1 260px;
  }
`
