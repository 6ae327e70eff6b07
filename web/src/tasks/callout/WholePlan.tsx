import { useMemo } from 'react'
import styled from 'styled-components'
import { Quiet } from '../../ui/Button'
import { Soft } from '../../ui/Page'
import { partsLeft, stepsById, type Book, type Standing, type Step } from './log/fold'
import type { Now } from './log/plan'
import type { Enter } from './useCallout'
import { minutesWords, whereOf, whyOut } from './words'

interface Props {
  book: Book
  stands: Standing
  enter: Enter
  may: boolean
  plan: Now
}

/** Done, now, then, and what does not fit, each with its minutes. */
export function WholePlan({ book, stands, enter, may, plan }: Props) {
  const steps = useMemo(() => stepsById(book), [book])
  const parts = partsLeft(book, stands)
  const kept = plan.current ? [plan.current, ...plan.then] : plan.then
  const open = (step: Step) => (may ? () => enter({ kind: 'open_again', step: step.id }) : undefined)
  const told = (ids: Iterable<string>) => [...ids].flatMap((id) => steps.get(id) ?? [])
  // What is done otherwise needs no word of its own.
  const out = plan.out.filter((step) => whyOut(step, parts, kept) !== 'done otherwise')
  return (
    <List aria-label="The whole plan">
      <h2>The whole plan</h2>
      <p>
        {kept.length
          ? `${kept.length} ${kept.length === 1 ? 'step' : 'steps'}, ${minutesWords(plan.needs)} of ${minutesWords(plan.minutes)}. ${plan.proved ? 'Nothing else helps more in these minutes.' : 'The best found so far.'}${plainWords(plan)}`
          : 'Nothing is planned.'}
      </p>
      <ol>
        {kept.map((step, n) => (
          <li key={step.id} data-now={n === 0 && plan.current === step ? true : undefined}>
            <span>
              <b>{step.title}</b>
              <small>
                {whereOf(step, book.drums)}
                {step.beside ? `, ${step.beside}` : ''}
                {restsOn(step, kept) ? `; after ${restsOn(step, kept)}` : ''}
              </small>
              <small>{step.why}</small>
            </span>
            <Worth worth={step.worth} />
            <time>{minutesWords(step.minutes)}</time>
          </li>
        ))}
      </ol>
      {plan.others.length ? <h3>In other hands</h3> : null}
      <Group steps={plan.others} book={book} say={() => ''} />
      {out.length ? <h3>Not in the plan</h3> : null}
      <Group steps={out} book={book} say={(step) => whyOut(step, parts, kept)} />
      {stands.done.size || stands.cannot.size ? <h3>Seen to</h3> : null}
      <Group steps={told(stands.done.keys())} book={book} say={() => 'done'} onOpen={open} />
      <Group steps={told(stands.cannot.keys())} book={book} say={() => 'cannot'} onOpen={open} />
    </List>
  )
}

/** What of this plan a step rests on. */
const restsOn = (step: Step, kept: Step[]): string =>
  kept
    .filter((each) => step.after.includes(each.id))
    .map((each) => each.title.toLowerCase())
    .join(' and ')

const plainWords = ({ worth, plain }: Now): string =>
  plain < worth - 0.01
    ? ` Fixing the worst first would win ${Math.round((100 * plain) / worth)} % of it.`
    : ''

interface GroupProps {
  steps: Step[]
  book: Book
  say: (step: Step) => string
  onOpen?: (step: Step) => (() => void) | undefined
}

function Group({ steps, book, say, onOpen }: GroupProps) {
  if (!steps.length) return null
  return (
    <ol>
      {steps.map((step) => {
        const open = onOpen?.(step)
        return (
          <li key={step.id} data-past>
            <span>
              <b>{step.title}</b>
              <small>{[whereOf(step, book.drums), say(step)].filter(Boolean).join(', ')}</small>
            </span>
            {open ? (
              <Quiet onPress={open}>
                <u>open again</u>
              </Quiet>
            ) : (
              <time>{minutesWords(step.minutes)}</time>
            )}
          </li>
        )
      })}
    </ol>
  )
}

/** What it helps, in strokes: a stroke for each two the workshop’s weights make of it. */
function Worth({ worth }: { worth: number }) {
  const strokes = Math.max(1, Math.min(6, Math.round(worth / 2)))
  return (
    <Soft role="img" title={`helps ${worth}`} aria-label={`helps ${worth}`}>
      {'|'.repeat(strokes)}
    </Soft>
  )
}

const List = styled.section`
  padding: 18px 28px 24px;
  border-left: 1px solid var(--rule);
  overflow-y: auto;
  h2 {
    font-size: 20px;
  }
  h3 {
    padding: 18px 0 4px;
    font-size: 16px;
  }
  > p {
    padding: 4px 0 8px;
    color: var(--soft);
    font-size: 15px;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    align-items: center;
    gap: 12px;
    min-height: 52px;
    padding: 6px 0;
    border-top: 1px solid var(--rule);
  }
  li[data-now] b {
    font-weight: 750;
    text-decoration: underline;
    text-underline-offset: 4px;
  }
  li[data-past] {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  b {
    display: block;
    font: 600 17px/1.2 var(--slab);
  }
  small {
    display: block;
    color: var(--soft);
    font-size: 14px;
    line-height: 1.3;
  }
  time {
    font: 600 15px var(--mono);
  }
  @media (max-width: 1000px) {
    border-left: 0;
  }
  @media (max-width: 700px) {
    padding: 12px 16px 190px;
  }
`
