import { useEffect, useRef } from 'react'
import styled from 'styled-components'
import { ForReaders } from '../../ui/ForReaders'
import type { Bench, Step } from './log/types'

function title(step: Step): string {
  if (step.kind === 'clear' && !step.done && step.laps.length > 1)
    return `${step.title}, round ${step.laps.length}`
  return step.title
}

/** The steps in the trade's order: done in ink, the one in hand underlined, those ahead faint. */
export function StepList({ bench, now }: { bench: Bench; now: Step | undefined }) {
  const here = useRef<HTMLLIElement>(null)
  const at = now?.id
  useEffect(() => {
    const show = () => here.current?.scrollIntoView({ block: 'nearest', inline: 'center' })
    show()
    window.addEventListener('resize', show) // a tablet turned
    return () => window.removeEventListener('resize', show)
  }, [at])
  return (
    <List aria-label="Steps">
      {bench.steps.map((step) => (
        <li
          key={step.id}
          ref={step === now ? here : null}
          data-state={step.done ? 'done' : step === now ? 'now' : 'ahead'}
          aria-current={step === now ? 'step' : undefined}
        >
          {title(step)}
          {step.done ? <ForReaders> done</ForReaders> : null}
        </li>
      ))}
    </List>
  )
}

const List = styled.ol`
  position: relative;
  display: flex;
  gap: 4px;
  overflow-x: auto;
  scrollbar-width: none;
  padding: 0 28px;
  border-bottom: 1px solid var(--rule);
  li {
    flex: none;
    display: flex;
    align-items: center;
    min-height: 44px;
    font-size: 14.5px;
    white-space: nowrap;
  }
  li + li::before {
    content: '';
    width: 12px;
    height: 1px;
    margin-right: 4px;
    background: var(--rule);
  }
  li[data-state='ahead'] {
    color: var(--soft);
  }
  li[data-state='now'] {
    font-weight: 700;
    box-shadow: inset 0 -3.5px 0 var(--ink);
  }
  li[data-state='now'] {
    margin-left: 14px;
  }
  li[data-state='now']::before {
    display: none;
  }
  @media (max-width: 700px) {
    padding: 0 16px;
  }
`
