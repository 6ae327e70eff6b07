import { useState } from 'react'
import styled from 'styled-components'
import { Main } from '../../../ui/Button'
import { useDonors } from '../../../api/donors'
import { Dialog } from '../../../ui/Dialog'
import { Donors } from '../../../ui/Donors'
import { Field } from '../../../ui/Field'
import { Soft } from '../../../ui/Page'

interface Props {
  what: string
  /** The drum that borrows. */
  own: string
  /** Where the rod is gone, if it is a rod. */
  side: 'batter' | 'resonant'
  rod: number | null
  onLent: (what: string, from: string, itsRod: number | null) => void
  onClose: () => void
}

/** A part borrowed from another drum: never without a record. It is owed on Today until it is back. */
export function BorrowSheet({ what, own, side, rod, onLent, onClose }: Props) {
  const [part, setPart] = useState(what)
  const [from, setFrom] = useState('')
  const [given, setGiven] = useState<{ tag: string; rod: number } | null>(null)
  const aRod = /\brod\b/.test(what)
  const donors = useDonors(own, side, rod ?? 1, aRod)
  const itself = from.trim().toLowerCase() === own.toLowerCase()
  const ready = part.trim() && from.trim() && !itself
  return (
    <Dialog title="Borrow from another drum" open onClose={onClose}>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          if (!ready) return
          onLent(part.trim(), from.trim(), given?.tag === from.trim() ? given.rod : null)
          onClose()
        }}
      >
        <Field label="What" value={part} onChange={setPart} />
        <Field
          label="From which drum (its tag)"
          value={from}
          onChange={setFrom}
          error={itself ? 'Another drum than this one.' : undefined}
        />
        {donors.data ? (
          <Donors
            {...donors.data}
            onPick={(tag, itsRod) => {
              setFrom(tag)
              setGiven({ tag, rod: itsRod })
            }}
          />
        ) : null}
        {donors.data?.donors.length ? null : (
          <Soft>
            Best from a drum that rests tonight. Else from a snare’s batter away from where rim shots fall:
            six rods suffer from one that is missing, eight notice, ten hardly; never beside a snare bed. Give
            the two neighbours of the gap a little extra there.
          </Soft>
        )}
        <Main type="submit" isDisabled={!ready}>
          Borrowed
        </Main>
      </Form>
    </Dialog>
  )
}

const Form = styled.form`
  display: grid;
  gap: 14px;
`
