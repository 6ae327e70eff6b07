import styled from 'styled-components'
import type { Plan } from '../../log/types'

export type SealState = 'clear' | 'not-yet' | 'unknown'

const PITCH: Record<SealState, string> = {
  clear: 'Pitch-clear',
  'not-yet': 'Not yet pitch-clear',
  unknown: 'Pitch not read',
}
const TENSION: Record<SealState, string> = {
  clear: 'Tension-clear',
  'not-yet': 'Tension uneven',
  unknown: 'Tension not shown',
}

export function pitchSeal(plan: Plan | null | undefined): SealState {
  if (!plan || plan.means === 'gauge' || plan.means === 'torque') return 'unknown'
  return plan.clear ? 'clear' : 'not-yet'
}

export function tensionSeal(plan: Plan | null | undefined): SealState {
  if (!plan?.pull.told_by.length) return 'unknown'
  return plan.pull.clear ? 'clear' : 'not-yet'
}

export const sealWords = (kind: 'pitch' | 'tension', state: SealState): string =>
  (kind === 'pitch' ? PITCH : TENSION)[state]

/** Two different things: what the readings show, and what the count or a gauge shows. */
export function Seal({ kind, state }: { kind: 'pitch' | 'tension'; state: SealState }) {
  return (
    <Mark viewBox="-20 -20 40 40" width={34} height={34} data-state={state} aria-hidden>
      <circle r={17} />
      {kind === 'pitch' ? (
        <path d="M-10 2 q5 -11 10 0 t10 0" />
      ) : (
        <path d="M0 -10 V10 M-8.5 -5 L8.5 5 M-8.5 5 L8.5 -5" />
      )}
    </Mark>
  )
}

const Mark = styled.svg`
  flex: none;
  fill: none;
  stroke: var(--soft);
  stroke-width: 2;
  stroke-linecap: round;
  &[data-state='unknown'] circle {
    stroke-dasharray: 2 5;
  }
  &[data-state='not-yet'] {
    stroke: var(--ink);
  }
  &[data-state='clear'] {
    stroke: var(--on-ink);
    circle {
      fill: var(--ink);
      stroke: var(--ink);
    }
  }
`
