import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import { Key, Main, Plain, Quiet } from '../../ui/Button'
import { useKeys } from '../../ui/useKeys'
import { LendPicture } from './LendPicture'
import { stepsById, type Book, type Standing } from './log/fold'
import type { Now } from './log/plan'
import { MinutesBar } from './MinutesBar'
import type { Enter } from './useCallout'
import { WholePlan } from './WholePlan'
import { minutesWords, whereOf } from './words'

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
      <WholePlan {...props} />
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
    c: may && step ? () => answer('cannot') : undefined,
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
            Cannot <Key>C</Key>
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
    bottom: var(--above-rail);
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
