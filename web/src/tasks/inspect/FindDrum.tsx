import { useState } from 'react'
import styled from 'styled-components'
import { Plain } from '../../ui/Button'
import { Field } from '../../ui/Field'
import { Scanner } from '../../ui/scan/Scanner'

/** A drum by its tag: typed, or scanned from its label. */
export function FindDrum({ problem, onTag }: { problem: string; onTag: (tag: string) => void }) {
  const [typed, setTyped] = useState('')
  const [scanning, setScanning] = useState(false)
  return (
    <Box>
      {scanning ? <Scanner onCode={onTag} /> : null}
      <form
        onSubmit={(event) => {
          event.preventDefault()
          if (typed.trim()) onTag(typed)
        }}
      >
        <Field
          label="Tag"
          value={typed}
          onChange={setTyped}
          name="tag"
          autoComplete="off"
          error={problem || undefined}
        />
        <Plain type="submit">Open</Plain>
        <Plain aria-pressed={scanning} onPress={() => setScanning(!scanning)}>
          {scanning ? 'Stop the camera' : 'Scan its label'}
        </Plain>
      </form>
    </Box>
  )
}

const Box = styled.div`
  display: grid;
  gap: 10px;
  form {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 10px;
  }
  form > div {
    flex: 1 1 180px;
  }
`
