import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { addPhoto, smaller } from '../../api/photos'
import { newId } from '../../domain/ids'
import { Plain, Quiet } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Page'
import { useDraft } from '../../ui/useDraft'

/** A line for the history without a job, and a photo if one helps. */
export function WriteNote({ tag }: { tag: string }) {
  const queries = useQueryClient()
  const [open, setOpen] = useState(false)
  const [id, setId] = useState(newId)
  const [draft, setDraft, forget] = useDraft(`note:${tag}`, { text: '' })
  const camera = useRef<HTMLInputElement>(null)
  const write = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/register/drums/{tag}/notes', {
          params: { path: { tag } },
          body: { id, text: draft.text },
        }),
      ),
    onSuccess: () => {
      forget()
      setDraft({ text: '' })
      forget()
      setId(newId())
      setOpen(false)
      void queries.invalidateQueries({ queryKey: keys.sheet(tag) })
    },
  })
  if (!open && !draft.text) return <Quiet onPress={() => setOpen(true)}>Write a note</Quiet>
  return (
    <Row
      onSubmit={(event) => {
        event.preventDefault()
        if (draft.text.trim()) write.mutate()
      }}
    >
      <Field
        label="A note for the history"
        value={draft.text}
        onChange={(text) => setDraft({ text })}
        name="note"
      />
      <Plain type="submit" isDisabled={!draft.text.trim() || write.isPending}>
        Write it
      </Plain>
      <Quiet onPress={() => camera.current?.click()}>Photo</Quiet>
      <Quiet
        onPress={() => {
          forget()
          setDraft({ text: '' })
          forget()
          setOpen(false)
        }}
      >
        Leave it
      </Quiet>
      <input
        ref={camera}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label="Photo beside the note"
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file)
            void smaller(file)
              .then((image) => addPhoto({ tag, job: '', about: 'note' }, image))
              .then(() => queries.invalidateQueries({ queryKey: keys.photosOf(tag) }))
        }}
      />
      {write.error ? <Problem>{write.error.message} It stays on this device.</Problem> : null}
    </Row>
  )
}

const Row = styled.form`
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 8px 12px;
  padding: 8px 0;
  > :first-child {
    flex: 1 1 260px;
  }
`
