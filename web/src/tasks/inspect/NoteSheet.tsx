import { useState } from 'react'
import { Main, Plain } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'

interface Props {
  title: string
  value: string
  onKeep: (note: string) => void
  onClose: () => void
}

/** A word about something seen. */
export function NoteSheet({ title, value, onKeep, onClose }: Props) {
  const [note, setNote] = useState(value)
  return (
    <Dialog title={title} open onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          onKeep(note.trim().slice(0, 300))
          onClose()
        }}
      >
        <Field label="A word about it" value={note} onChange={setNote} name="note" autoComplete="off" />
        <p style={{ display: 'flex', gap: 12, paddingTop: 16 }}>
          <Main type="submit">Keep it</Main>
          <Plain onPress={onClose}>Not now</Plain>
        </p>
      </form>
    </Dialog>
  )
}
