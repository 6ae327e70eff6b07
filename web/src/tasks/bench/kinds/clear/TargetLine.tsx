import { useState } from 'react'
import styled from 'styled-components'
import { likelyBeside, likelyPitch } from '../../../../domain/likely'
import { hz } from '../../../../domain/pitch'
import { Plain } from '../../../../ui/Button'
import { Dialog } from '../../../../ui/Dialog'
import { Field } from '../../../../ui/Field'
import { Num } from '../../../../ui/Page'
import { Choice } from '../../../../ui/Choice'
import type { Bench, Lap, Uneven } from '../../log/types'
import { Change, Line } from './MeansLine'
import { Label } from '../../parts'
import { readingProblem } from './readingProblem'

interface Props {
  bench: Bench
  lap: Lap
  onTarget: (typed: string) => void
  onUneven: (what: Uneven, start: number) => void
}

/** The pitch the head is brought to, and a way to choose another. */
export function TargetLine({ bench, lap, onTarget, onUneven }: Props) {
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState('')
  const wanted = bench.head.target_hz ?? lap.wanted_hz
  const problem = typed && readingProblem(typed, 'pitch')
  const choose = (text: string) => {
    onTarget(text)
    setOpen(false)
    setTyped('')
  }
  return (
    <Line>
      {bench.head.target_hz ? (
        <>
          Wanted <Num>{hz(bench.head.target_hz)}</Num> Hz, {bench.head.target_note}
          {bench.head.aim_hz && hz(bench.head.aim_hz) !== hz(bench.head.target_hz) ? (
            <>
              ; left at <Num>{hz(bench.head.aim_hz)}</Num>, it settles to that
            </>
          ) : null}
        </>
      ) : (
        <>Holding the pitch it has{wanted ? `, ${hz(wanted)} Hz` : ''}</>
      )}
      <Change onPress={() => setOpen(true)}>Change</Change>
      {bench.head.uneven_words ? <Label>{bench.head.uneven_words}</Label> : null}
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
            likely={wanted ? likelyBeside(wanted) : likelyPitch(bench.kind, bench.kind_words)}
            name="wanted"
          />
          <Row>
            <Plain type="submit" isDisabled={!typed || Boolean(problem)}>
              Bring it there
            </Plain>
            <Plain onPress={() => choose('')}>Hold the pitch it has</Plain>
          </Row>
        </form>
        {bench.head.target_words ? (
          <p>{bench.head.target_words} The head maker’s own limit comes first.</p>
        ) : null}
        <LeftUneven
          bench={bench}
          onUneven={(what, start) => {
            onUneven(what, start)
            setOpen(false)
          }}
        />
      </Dialog>
    </Line>
  )
}

/** A perfectly even head is not always wanted (common practice, P18 and P19). */
function LeftUneven({ bench, onUneven }: { bench: Bench; onUneven: (what: Uneven, start: number) => void }) {
  const [start, setStart] = useState('1')
  const options: { value: Uneven; words: string; note?: string }[] = [
    { value: '', words: 'Even everywhere' },
    { value: 'rod-down', words: 'One rod a little down', note: 'so that it does not sing with another drum' },
    { value: 'four-by-a-hair', words: 'Four by a hair', note: 'two pairs in line, to deaden it' },
    ...(bench.snare && bench.head.side === 'resonant'
      ? [{ value: 'beside-wires' as const, words: 'Those beside the wires', note: 'against buzz' }]
      : []),
  ]
  return (
    <>
      <Field
        label="On purpose, from rod"
        value={start}
        onChange={setStart}
        inputMode="numeric"
        name="start"
      />
      <Choice<Uneven>
        label="Leave it"
        value={bench.head.uneven}
        onChange={(what) => onUneven(what, Math.max(1, Number.parseInt(start, 10) || 1))}
        options={options}
      />
    </>
  )
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  padding-top: 16px;
`
