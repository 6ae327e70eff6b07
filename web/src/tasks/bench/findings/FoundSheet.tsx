import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../../../api/client'
import type { Body } from '../../../api/outbox'
import { Plain } from '../../../ui/Button'
import { Choice } from '../../../ui/Choice'
import { Dialog } from '../../../ui/Dialog'
import { Field } from '../../../ui/Field'
import { Kinds } from './Kinds'
import { useFindings } from './useFindings'
import type { Bench, Side, Step } from '../log/types'

type Kind = Schemas['CanBeFound']
type Degree = '1' | '2' | '3'

interface Props {
  bench: Bench
  step: Step
  /** The rod in hand, if any. */
  rod: number | null
  enter: (body: Body) => void
  onClose: () => void
}

const SIDED: readonly Kind['where'][] = ['head', 'rod', 'hoop', 'edge']
const DEGREES: { value: Degree; words: string }[] = [
  { value: '1', words: 'slight' },
  { value: '2', words: 'plain' },
  { value: '3', words: 'bad' },
]

/** What can be found here, one tap each; the plan changes at once. */
export function FoundSheet({ bench, step, rod, enter, onClose }: Props) {
  const [side, setSide] = useState<Side>(step.side ?? bench.head.side)
  const [at, setAt] = useState<number | null>(rod)
  const [degree, setDegree] = useState<Degree>('2')
  const [note, setNote] = useState('')
  const [asked, setAsked] = useState<Kind | null>(null)
  const known = useFindings(bench.kind)
  const make = (kind: Kind, there: number | null) => {
    if (kind.where === 'rod' && there === null) {
      setAsked(kind)
      return
    }
    enter({
      kind: 'found',
      step: step.id,
      finding: kind.id,
      side: SIDED.includes(kind.where) ? side : null,
      rod: kind.where === 'rod' ? there : null,
      degree: kind.degrees ? (Number(degree) as 1 | 2 | 3) : 2,
      note: note.trim(),
    })
    onClose()
  }
  const head = bench.heads.find((each) => each.side === side) ?? bench.head
  return (
    <Dialog title={asked ? `At which rod: ${asked.words}?` : 'Something found'} open wide onClose={onClose}>
      {bench.heads.length > 1 ? (
        <Choice<Side>
          label="On the side"
          value={side}
          onChange={setSide}
          options={bench.heads.map((each) => ({ value: each.side, words: each.side }))}
        />
      ) : null}
      <Rods role="group" aria-label="Rod">
        {Array.from({ length: head.rods }, (_, n) => n + 1).map((each) => (
          <Plain
            key={each}
            aria-pressed={at === each}
            onPress={() => (asked ? make(asked, each) : setAt(at === each ? null : each))}
          >
            {each}
          </Plain>
        ))}
      </Rods>
      {asked ? null : (
        <>
          <Choice<Degree> label="How bad" value={degree} onChange={setDegree} options={DEGREES} />
          <Kinds known={known} first={step.looks_at} onKind={(kind) => make(kind, at)} />
          <Field label="A word about it, if you like" value={note} onChange={setNote} name="finding-note" />
        </>
      )}
    </Dialog>
  )
}

const Rods = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  > button {
    min-width: 48px;
    min-height: 48px;
    font: 650 20px var(--slab);
  }
  > button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--on-ink);
  }
`
