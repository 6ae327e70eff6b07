import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { between } from '../../domain/likely'
import { Main } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Page'
import { useStockChanged, type Line } from './useShelf'

/** Where a line usually lies, how many are to be kept there, a note. */
export function KeepSheet({ line, onClose }: { line: Line; onClose: () => void }) {
  const queries = useQueryClient()
  const changed = useStockChanged()
  const [said, setSaid] = useState({
    place: line.row.place,
    minimum: String(line.row.minimum),
    note: line.note,
  })
  const keep = useMutation({
    mutationFn: () =>
      unwrap(
        api.PUT('/api/shelf/lines/{line}', {
          params: { path: { line: line.row.id } },
          body: { ...said, minimum: Number(said.minimum) },
        }),
      ),
    onSuccess: (kept) => {
      queries.setQueryData(keys.stockLine(line.row.id), kept)
      changed()
      onClose()
    },
  })
  const ready = /^\d+$/.test(said.minimum.trim())
  return (
    <Dialog title={line.called} open onClose={onClose}>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          if (ready) keep.mutate()
        }}
      >
        <Field label="Usual place" value={said.place} onChange={(place) => setSaid({ ...said, place })} />
        <Field
          label="To be kept there, free"
          hint="Below that it is on the buying list."
          value={said.minimum}
          inputMode="numeric"
          likely={between(0, 50, 'Few lines are kept in more than 50.')}
          onChange={(minimum) => setSaid({ ...said, minimum })}
        />
        <Field label="Note" value={said.note} onChange={(note) => setSaid({ ...said, note })} />
        {keep.error ? <Problem>{keep.error.message}</Problem> : null}
        <Main type="submit" isDisabled={!ready || keep.isPending}>
          Keep it so
        </Main>
      </Form>
    </Dialog>
  )
}

const Form = styled.form`
  display: grid;
  gap: 14px;
`
