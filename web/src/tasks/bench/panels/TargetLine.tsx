import { useState } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { hz } from '../../../domain/pitch'
import { Plain } from '../../../ui/Button'
import { Dialog } from '../../../ui/Dialog'
import { Field } from '../../../ui/Field'
import { Num } from '../../../ui/Page'
import type { Bench, Lap } from '../state/types'
import { readingProblem } from './ReadPanel'

interface Props {
  bench: Bench
  lap: Lap
  onTarget: (typed: string) => void
}

/** The pitch the head is brought to, and a way to choose another. */
export function TargetLine({ bench, lap, onTarget }: Props) {
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState('')
  const wanted = bench.target_hz ?? lap.wanted_hz
  const problem = typed && readingProblem(typed)
  const choose = (text: string) => {
    onTarget(text)
    setOpen(false)
    setTyped('')
  }
  return (
    <Line>
      {bench.target_hz ? (
        <>
          Wanted <Num>{hz(bench.target_hz)}</Num> Hz, {bench.target_note}
        </>
      ) : (
        <>Holding the pitch it has{wanted ? `, ${hz(wanted)} Hz` : ''}</>
      )}
      <Change onPress={() => setOpen(true)}>Change</Change>
      <Dialog title="Wanted pitch at the rods" open={open} onClose={() => setOpen(false)}>
        <form
          onSubmit={(event) => {
            event.preventDefault()
            if (typed && !problem) choose(typed)
          }}
        >
          <Field
            label="Bring every rod to"
            value={typed}
            onChange={setTyped}
            hint="hertz, or a note such as F3 +12"
            error={problem || undefined}
            name="wanted"
          />
          <Row>
            <Plain type="submit" isDisabled={!typed || Boolean(problem)}>
              Bring it there
            </Plain>
            <Plain onPress={() => choose('')}>Hold the pitch it has</Plain>
          </Row>
        </form>
      </Dialog>
    </Line>
  )
}

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  font-size: 15.5px;
`
const Change = styled(AriaButton)`
  border: 0;
  background: none;
  padding: 12px 4px;
  margin: -8px 0;
  color: var(--soft);
  text-decoration: underline dotted;
  text-underline-offset: 4px;
  cursor: pointer;
`
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  padding-top: 16px;
`
