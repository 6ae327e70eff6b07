import { useState } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { Choice } from '../../../../ui/Choice'
import { Dialog } from '../../../../ui/Dialog'
import type { Bench, Means } from '../../log/types'

const WORDS: Record<Means, string> = {
  pitch: 'by pitch, in hertz',
  ear: 'by ear',
  gauge: 'with a film gauge',
  torque: 'with a torque key',
}
const NOTES: Record<Means, string> = {
  pitch: 'hears the two-lobed unevenness of a head and holds the pitch',
  ear: 'no numbers: each rod beside one other, higher or lower',
  gauge: 'any scale; shows lopsided pulls that pitch cannot',
  torque: 'misleads where threads are dry or dirty',
}
const ALL = Object.keys(WORDS) as Means[]

/** What the rods are read with: all schools are first-class. */
export function MeansLine({
  bench,
  onMeans,
}: {
  bench: Bench
  onMeans: (means: Means, reference?: number) => void
}) {
  const [open, setOpen] = useState(false)
  return (
    <Line>
      Read {WORDS[bench.means].split(',')[0]}
      <Change onPress={() => setOpen(true)}>Another way</Change>
      <Dialog title="Read the rods" open={open} onClose={() => setOpen(false)}>
        <Choice<Means>
          label="From this round on"
          value={bench.means}
          onChange={(means) => {
            onMeans(means)
            setOpen(false)
          }}
          options={ALL.map((value) => ({ value, words: WORDS[value], note: NOTES[value] }))}
        />
        {bench.means === 'ear' ? (
          <Choice
            label="Compare the others with rod"
            value={String(bench.head.reference)}
            onChange={(rod) => {
              onMeans('ear', Number(rod))
              setOpen(false)
            }}
            options={bench.head.tapping_order.map((rod) => ({ value: String(rod), words: String(rod) }))}
          />
        ) : null}
      </Dialog>
    </Line>
  )
}

export const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  font-size: 15.5px;
`
export const Change = styled(AriaButton)`
  border: 0;
  background: none;
  padding: 12px 4px;
  margin: -8px 0;
  color: var(--soft);
  text-decoration: underline dotted;
  text-underline-offset: 4px;
  cursor: pointer;
`
