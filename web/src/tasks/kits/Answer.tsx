import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useDropPlanned } from '../../api/planned'
import { many } from '../../domain/counted'
import { newId } from '../../domain/ids'
import { Key, Main } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'
import { PlannedRows } from '../../ui/PlannedRows'
import { useKeys } from '../../ui/useKeys'
import { useMakeJobs, type Kit, type Plan } from './useKit'

interface Props {
  kit: Kit
  plan: Plan
  thinking: boolean
  mayChange: boolean
}

/** About how long, as one says it. */
function lasting(minutes: number): string {
  if (minutes < 60) return `about ${minutes} minutes`
  const halves = Math.round(minutes / 30)
  const whole = Math.floor(halves / 2)
  return `about ${whole}${halves % 2 ? '½' : ''} ${halves === 2 ? 'hour' : 'hours'}`
}

/** Every head the plan names, in the order to do them; those with work are jobs. */
function headsOf(kit: Kit, plan: Plan) {
  const nameOf = (tag: string) => kit.drums.find((each) => each.tag === tag)?.name ?? tag
  return plan.places.flatMap((place) => {
    const bass = kit.drums.find((each) => each.tag === place.tag)?.role === 'bass'
    const inOrder = bass ? place.heads : [...place.heads].reverse()
    return inOrder.map((head) => ({
      tag: place.tag,
      side: head.side,
      hz: head.hz,
      job: head.job,
      why: head.job ? head.words : '',
      name: nameOf(place.tag),
    }))
  })
}

/** How good the plan is, what it takes, what to know; and the one press that makes its jobs. */
export function Answer({ kit, plan, thinking, mayChange }: Props) {
  const make = useMakeJobs(kit)
  const drop = useDropPlanned(`from ${kit.name}`)
  const [dropped, setDropped] = useState<ReadonlySet<string>>(new Set())
  const [made, setMade] = useState<Plan | null>(null)
  const heads = headsOf(kit, plan)
  const jobs = heads.filter((each) => each.job)
  const touched = new Set(jobs.map((each) => each.tag))
  const done = made === plan
  const press = () => {
    if (!mayChange || thinking || !jobs.length || make.isPending || done) return
    make.mutate(
      {
        id: newId(),
        heads: heads.filter((each) => touched.has(each.tag)).map(({ name: _, ...head }) => head),
      },
      { onSuccess: () => setMade(plan) },
    )
  }
  useKeys({ ' ': press, PageDown: press })
  const [first] = jobs
  return (
    <Box aria-live="polite" data-thinking={thinking || undefined}>
      <h2>{plan.headline}</h2>
      <p>{plan.sum}</p>
      <ul>
        {plan.notes.map((note) => (
          <li key={note}>{note}</li>
        ))}
      </ul>
      {make.error ? <Problem>{make.error.message}</Problem> : null}
      <Foot>
        {done && make.data && first ? (
          <Done role="status">
            <b>{many(make.data.planned.length, 'job')} planned</b>
            <PlannedRows
              rows={make.data.planned.filter(({ id }) => !dropped.has(id))}
              onDrop={(planned) =>
                drop.mutate(planned.id, { onSuccess: () => setDropped(new Set([...dropped, planned.id])) })
              }
            />
            <Soft>The new wanted pitches are kept with the drums.</Soft>
            {make.data.notes.map((note) => (
              <Soft key={note}>{note}</Soft>
            ))}
            <Link to={`/drums/${first.tag}/start?work=${plan.work}&part=${first.side}`}>
              <u>
                Begin with {first.name}’s {first.side}
              </u>
            </Link>
          </Done>
        ) : null}
        {jobs.length && mayChange && !done ? (
          <>
            <Soft>{lasting(plan.minutes)} at the bench</Soft>
            <Main onPress={press} isDisabled={thinking || make.isPending}>
              {jobs.length === 1 ? 'Make the job' : `Make ${jobs.length} jobs`} <Key>space</Key>
            </Main>
          </>
        ) : null}
      </Foot>
    </Box>
  )
}

const Box = styled.div`
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  padding-top: 12px;
  border-top: 1px solid var(--ink);
  font-size: 15px;
  transition: opacity 0.15s;
  &[data-thinking] {
    opacity: 0.55;
  }
  h2 {
    font-size: 21px;
  }
  li {
    padding: 7px 0;
    border-top: 1px solid var(--rule);
  }
  @media (prefers-reduced-motion: reduce) {
    transition: none;
  }
`
const Foot = styled.div`
  margin-top: auto;
  padding-top: 8px;
  display: flex;
  flex-direction: column;
  gap: 8px;
  > button {
    align-self: stretch;
  }
`
const Done = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  b {
    font: 600 19px var(--slab);
  }
`
