import { useState } from 'react'
import styled from 'styled-components'
import { Key, Main, Plain, Quiet } from '../../ui/Button'
import { useKeys } from '../../ui/useKeys'
import { Foot } from './foot'
import type { Verdict, WalkDrum } from './log/fold'
import { OverruleSheet } from './OverruleSheet'
import { Reasons } from './Reasons'
import type { Said } from './useWalk'
import { isOwed, NAMES, PARTS, VerdictParts, type Decided } from './VerdictParts'

interface Props {
  drum: WalkDrum
  verdict: Verdict | null
  mayChange: boolean
  lookedId: string | null
  last: boolean
  say: (said: Said) => Promise<string>
  onNext: () => void
  onPlan: () => void
  onTonight: (work: Verdict['works'][number]) => void
}

/** What the look came to, as a short note; each part can be decided otherwise, with a reason. */
export function VerdictNote({
  drum,
  verdict,
  mayChange,
  lookedId,
  last,
  say,
  onNext,
  onPlan,
  onTonight,
}: Props) {
  const [over, setOver] = useState<Decided | null>(null)
  const [why, setWhy] = useState(false)
  const again = mayChange && lookedId ? () => void say({ kind: 'taken_back', event: lookedId }) : undefined
  const plan = verdict?.works.length && !verdict.answered ? onPlan : undefined
  const tonight = mayChange ? verdict?.works.find((each) => each.tonight) : undefined
  const worst = PARTS.find((part) => verdict && verdict.stands[part] !== 'nothing') ?? 'batter'
  useKeys({
    ' ': onNext,
    PageDown: onNext,
    w: () => setWhy(!why),
    u: again,
    j: plan,
    o: mayChange && verdict ? () => setOver(worst) : undefined,
  })
  return (
    <>
      <Note aria-label="Verdict" role="region">
        {verdict ? (
          <>
            <h2 data-owed={isOwed(verdict.stands['drum']) || undefined}>{verdict.headline}</h2>
            {verdict.lines.map((line) => (
              <p key={line}>{line}</p>
            ))}
            {verdict.first ? <p>{verdict.first}</p> : null}
            <VerdictParts
              verdict={verdict}
              hasWires={Boolean(drum.wires)}
              onOver={mayChange ? setOver : null}
            />
            <Quiet aria-expanded={why} onPress={() => setWhy(!why)}>
              Why, and what would change it <Key>W</Key>
            </Quiet>
            {why ? <Reasons verdict={verdict} /> : null}
          </>
        ) : (
          <>
            <h2>Looked at.</h2>
            <p>The verdict comes with the next connection. What you entered is kept on this device.</p>
          </>
        )}
      </Note>
      <Foot>
        {again ? (
          <Quiet onPress={again}>
            Look again <Key>U</Key>
          </Quiet>
        ) : null}
        {tonight ? <Plain onPress={() => onTonight(tonight)}>Turn it over for tonight</Plain> : null}
        {plan ? (
          <Plain onPress={plan}>
            Plan the work <Key>J</Key>
          </Plain>
        ) : null}
        <Main onPress={onNext}>
          {last ? 'To the end of the walk' : 'Next drum'} <Key>space</Key>
        </Main>
      </Foot>
      {over && verdict ? (
        <OverruleSheet
          part={NAMES[over]}
          now={verdict.stands[over] ?? 'nothing'}
          onClose={() => setOver(null)}
          onKeep={(stands, reason) => void say({ kind: 'overruled', part: over, verdict: stands, reason })}
        />
      ) : null}
    </>
  )
}

const Note = styled.section`
  flex: 1;
  padding: 24px 28px;
  display: grid;
  grid-template-columns: minmax(0, 80ch) minmax(260px, 1fr);
  gap: 0 44px;
  align-content: start;
  > * {
    grid-column: 1;
  }
  > ul:last-child:not([aria-label]) {
    grid-area: 1 / 2 / 30 / 3;
    border-left: 1px solid var(--rule);
    padding-left: 22px;
  }
  font-size: 17px;
  h2 {
    font-size: 30px;
    line-height: 1.2;
    padding-bottom: 12px;
  }
  h2[data-owed] {
    color: var(--red);
  }
  > p {
    padding-bottom: 6px;
  }
  > button {
    justify-self: start;
    margin-left: -10px;
  }
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
    > ul:last-child:not([aria-label]) {
      grid-area: auto;
      border-left: 0;
      padding-left: 0;
    }
  }
  @media (max-width: 700px) {
    padding: 16px;
    h2 {
      font-size: 25px;
    }
  }
`
