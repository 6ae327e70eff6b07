import type { ReactNode } from 'react'
import styled from 'styled-components'
import type { Body } from '../../api/outbox'
import { Asks } from './asks/Asks'
import { FoundList } from './findings/FoundList'
import { JobFacts } from './JobFacts'
import { LayOutList } from './layout/LayOutList'
import type { Bench, Step } from './log/types'
import { Photos } from './photos/Photos'

interface Props {
  bench: Bench
  step: Step | undefined
  enter: (body: Body) => void
  mayChange: boolean
  /** The ladder, where rods are turned or read. */
  children: ReactNode
}

/** Beside the instruction: what was found, what is asked, and whatever helps to do the step. */
export function Beside({ bench, step, enter, mayChange, children }: Props) {
  const asked = Boolean(step?.asks.length) && mayChange
  return (
    <Right>
      <FoundList bench={bench} enter={enter} mayChange={mayChange} />
      {step && step.photo !== 'none' ? <Photos bench={bench} step={step} mayChange={mayChange} /> : null}
      {step && asked ? <Asks key={step.id} step={step} bench={bench} enter={enter} /> : null}
      {children ?? <Help bench={bench} step={step} mayChange={mayChange} asked={asked} />}
    </Right>
  )
}

function Help({ bench, step, mayChange, asked }: Omit<Props, 'enter' | 'children'> & { asked: boolean }) {
  if (step?.lays_out) return <LayOutList bench={bench} step={step} mayChange={mayChange} />
  return asked && !step?.picture ? null : <JobFacts bench={bench} step={step} />
}

const Right = styled.div`
  grid-area: ladder;
  min-width: 0;
  min-height: 0;
  overflow: auto;
  display: flex;
  flex-direction: column;
  > :last-child {
    flex: 1 0 auto;
  }
  border-left: 1px solid var(--rule);
  @media (max-width: 1000px) {
    border-left: 0;
    border-top: 1px solid var(--rule);
    overflow: visible;
  }
`
