import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import { Key, Main, Plain, Quiet } from '../../ui/Button'
import { Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { LendPicture } from './LendPicture'
import { partsLeft, stepsById, type Book, type Standing, type Step } from './log/fold'
import type { Now } from './log/plan'
import { MinutesBar } from './MinutesBar'
import type { Enter } from './useCallout'
import { minutesWords, whereOf, whyOut } from './words'

interface Props {
  book: Book
  stands: Standing
  enter: Enter
  may: boolean
  plan: Now
  now: number
  onWalk: () => void
  onNote: () => void
}

/** The one thing to do now, and one swipe away all of it. */
export function Plan(props: Props) {
  const { plan, stands, enter, may } = props
  const sides = useRef<HTMLDivElement>(null)
  const takes = useEffectEvent(() => {
    if (may && stands.clock && !stands.over && plan.current && plan.since === null && plan.minutes > 0)
      enter({ kind: 'took', step: plan.current.id })
  })
  const proposed = plan.since === null ? plan.current?.id : undefined
  useEffect(() => {
    if (proposed) takes()
  }, [proposed])
  const whole = () =>
    sides.current?.scrollTo({
      left: sides.current.scrollLeft > 20 ? 0 : sides.current.scrollWidth,
      behavior: 'smooth',
    })
  return (
    <Sides ref={sides}>
      <OneThing {...props} onWhole={whole} />
      <Whole {...props} />
    </Sides>
  )
}

function OneThing({
  book,
  stands,
  enter,
  may,
  plan,
  now,
  onWalk,
  onNote,
  onWhole,
}: Props & { onWhole: () => void }) {
  const steps = useMemo(() => stepsById(book), [book])
  const finishing = plan.since !== null && !stands.over // begun, and finished though they should play
  const step = plan.minutes > 0 || finishing ? plan.current : null
  const [last, setLast] = useState<string | null>(null)
  const answer = (kind: 'done' | 'skipped' | 'cannot') => {
    if (!step) return
    setLast(step.id)
    if (kind === 'cannot') enter({ kind, step: step.id, words: '' })
    else enter({ kind, step: step.id })
  }
  const undo = () => {
    if (last) enter({ kind: 'open_again', step: last })
    setLast(null)
  }
  useKeys({
    ' ': may && step ? () => answer('done') : undefined,
    ArrowRight: may && step ? () => answer('done') : undefined,
    PageDown: may && step ? () => answer('done') : undefined,
    s: may && step ? () => answer('skipped') : undefined,
    n: may && step ? () => answer('cannot') : undefined,
    u: may && last ? undo : undefined,
    ArrowLeft: may && last ? undo : undefined,
    PageUp: may && last ? undo : undefined,
  })
  const left = step && plan.since !== null ? step.minutes - (now - plan.since) / 60_000 : (step?.minutes ?? 0)
  return (
    <One aria-label="The one thing now">
      <MinutesBar {...{ plan, stands, steps }} />
      {step ? (
        <>
          <p className="where">{whereOf(step, book.drums)}</p>
          <h2 aria-live="polite">{step.title}</h2>
          {step.beside ? <h3 data-owed={step.gives ? true : undefined}>{step.beside}</h3> : null}
          <LendPicture step={step} book={book} />
          <p className="why">
            {step.why}
            {step.caution ? <b> {step.caution}</b> : null}
          </p>
        </>
      ) : (
        <Nothing {...{ plan, stands, onWalk, onNote }} />
      )}
      {plan.then.length ? (
        <p className="then">
          Then:{' '}
          {plan.then
            .slice(0, 2)
            .map((each) => `${whereOf(each, book.drums)}, ${each.title.toLowerCase()} (${each.minutes} min)`)
            .join(' · ')}
        </p>
      ) : null}
      <p className="links">
        <Quiet onPress={onWhole}>
          <u>the whole plan</u>
        </Quiet>
        {may && last ? (
          <Quiet onPress={undo}>
            <u>undo {steps.get(last)?.title.toLowerCase()}</u> <Key>U</Key>
          </Quiet>
        ) : null}
      </p>
      {may && step ? (
        <footer>
          <Plain onPress={() => answer('cannot')}>
            Cannot <Key>N</Key>
          </Plain>
          <Plain onPress={() => answer('skipped')}>
            Skip <Key>S</Key>
          </Plain>
          <Main onPress={() => answer('done')}>
            {step.gives ? 'Done, lent' : 'Done'}
            <time>{left >= 0 ? minutesWords(left) : `+${minutesWords(-left)}`}</time>
          </Main>
        </footer>
      ) : null}
    </One>
  )
}

function Nothing({ plan, stands, onWalk, onNote }: Pick<Props, 'plan' | 'stands' | 'onWalk' | 'onNote'>) {
  const over = stands.clock && (stands.over || plan.minutes <= 0)
  const [title, words] = !stands.clock
    ? ['The clock is not running', 'Start it in the bag, or press the minutes above.']
    : over
      ? ['They play', 'What is left goes into the note. They start late? Press the clock.']
      : plan.others.length
        ? ['The rest is in other hands', 'Someone else is at what is left. Walk it once more meanwhile.']
        : plan.out.length
          ? [
              'Nothing more fits',
              'Neither minutes nor bag are enough for what is left. It goes into the note.',
            ]
          : ['Nothing to do', 'All that was ticked is seen to. Strike the kit once more.']
  return (
    <>
      <h2>{title}</h2>
      <p className="why">{words}</p>
      <p className="links">
        <Plain onPress={onWalk}>Walk it again</Plain>
        <Plain onPress={onNote}>To the note</Plain>
      </p>
    </>
  )
}

/** Done, now, then, and what does not fit, each with its minutes. */
function Whole({ book, stands, enter, may, plan }: Props) {
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

const Sides = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  min-height: 0;
  @media (max-width: 1000px) {
    grid-template-columns: 100% 100%;
    overflow-x: auto;
    scroll-snap-type: x mandatory;
    overscroll-behavior-x: contain;
    scrollbar-width: none;
    > * {
      scroll-snap-align: start;
    }
  }
`
const One = styled.section`
  display: flex;
  flex-direction: column;
  padding: 18px 28px 0;
  .where {
    padding-top: 18px;
    color: var(--soft);
  }
  h2 {
    padding-top: 4px;
    font-size: 34px;
  }
  h3 {
    padding-top: 2px;
    font-size: 21px;
    font-weight: 600;
  }
  h3[data-owed] {
    color: var(--red);
  }
  svg {
    margin: 16px 0 0;
  }
  .why {
    padding-top: 12px;
    font-size: 17px;
    max-width: 52ch;
  }
  .then {
    padding-top: 8px;
    color: var(--soft);
    font-size: 15px;
    max-width: 60ch;
  }
  .links {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    padding: 8px 0;
  }
  .links > button:has(u) {
    padding-left: 0;
  }
  footer {
    position: sticky;
    bottom: 0;
    margin-top: auto;
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 10px;
    padding: 10px 0 14px;
    background: var(--ground);
  }
  footer > button {
    justify-content: center;
    min-height: 52px;
  }
  footer > button:last-child {
    grid-column: 1 / -1;
    justify-content: space-between;
    min-height: 70px;
    font-size: 25px;
  }
  footer time {
    font: 600 17px var(--mono);
    opacity: 0.75;
  }
  @media (max-width: 1000px) {
    padding-bottom: 170px;
    footer {
      position: fixed; /* at hand whichever side shows */
      z-index: 2;
      inset: auto 28px 0 120px;
    }
  }
  @media (max-width: 700px) {
    padding: 12px 16px 170px;
    h2 {
      font-size: 31px;
    }
    footer {
      inset: auto 0 57px;
      padding: 10px 16px 12px;
    }
  }
`
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
    color: var(--soft);
    font-size: 14px;
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
