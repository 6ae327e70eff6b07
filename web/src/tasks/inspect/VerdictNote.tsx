import { useState } from 'react'
import styled from 'styled-components'
import { Key, Main, Plain, Quiet } from '../../ui/Button'
import { Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import type { Verdict, WalkDrum } from './log/fold'
import { OverruleSheet } from './OverruleSheet'
import type { Said } from './useWalk'

const PARTS = ['batter', 'resonant', 'wires', 'hardware'] as const
export type Decided = (typeof PARTS)[number]
const NAMES: Record<Decided, string> = {
  batter: 'Batter',
  resonant: 'Resonant head',
  wires: 'Snare wires',
  hardware: 'Shell and hardware',
}

interface Props {
  drum: WalkDrum
  verdict: Verdict | null
  mayChange: boolean
  lookedId: string | null
  last: boolean
  say: (said: Said) => Promise<string>
  onNext: () => void
  onPlan: () => void
}

/** Red is what is owed before the drum goes out, or at once. */
const owed = (stands: string): boolean => stands === 'replace-now' || stands === 'out-of-service'

/** What the look came to, as a short note; each part can be decided otherwise, with a reason. */
export function VerdictNote({ drum, verdict, mayChange, lookedId, last, say, onNext, onPlan }: Props) {
  const [over, setOver] = useState<Decided | null>(null)
  const [why, setWhy] = useState(false)
  const again = mayChange && lookedId ? () => void say({ kind: 'taken_back', event: lookedId }) : undefined
  const plan = verdict?.works.length && !verdict.answered ? onPlan : undefined
  useKeys({
    ' ': onNext,
    PageDown: onNext,
    w: () => setWhy(!why),
    u: again,
    j: plan,
    o:
      mayChange && verdict
        ? () => setOver(PARTS.find((part) => verdict.stands[part] !== 'nothing') ?? 'batter')
        : undefined,
  })
  return (
    <>
      <Note aria-label="Verdict" role="region">
        {verdict ? (
          <>
            <h2 data-owed={owed(verdict.stands['drum'] ?? '') || undefined}>{verdict.headline}</h2>
            {verdict.lines.map((line) => (
              <p key={line}>{line}</p>
            ))}
            {verdict.first ? <p>{verdict.first}</p> : null}
            {verdict.turn_over ? <p>Or turn the drum over for tonight.</p> : null}
            <Parts aria-label="By part">
              {PARTS.filter(
                (part) => part !== 'wires' || drum.wires || verdict.stands['wires'] !== 'nothing',
              ).map((part) => (
                <li key={part} data-owed={owed(verdict.stands[part] ?? '') || undefined}>
                  <b>{NAMES[part]}</b>
                  <span>
                    {verdict.words[part]}
                    {verdict.overruled[part] ? (
                      <Soft>
                        , decided by {verdict.overruled[part].by}: {verdict.overruled[part].reason}
                      </Soft>
                    ) : null}
                  </span>
                  {mayChange ? <Plain onPress={() => setOver(part)}>Decide otherwise</Plain> : null}
                </li>
              ))}
            </Parts>
            <Quiet aria-expanded={why} onPress={() => setWhy(!why)}>
              Why, and what would change it <Key>W</Key>
            </Quiet>
            {why ? (
              <Why>
                {verdict.because.map((each) => (
                  <li key={each.rule}>
                    {each.words} <Soft>{[each.rule, ...each.cites].join(', ')}</Soft>
                  </li>
                ))}
                {verdict.would_change.map((each) => (
                  <li key={each.part + each.if_words}>
                    {each.if_words.charAt(0).toUpperCase() + each.if_words.slice(1)}: {each.part},{' '}
                    {each.verdict}.
                  </li>
                ))}
                <li>
                  <Soft>
                    Rules are common practice. Makers’ instructions and qualified people come first.
                  </Soft>
                </li>
              </Why>
            ) : null}
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
const Parts = styled.ul`
  margin: 14px 0 8px;
  border-top: 1px solid var(--rule);
  li {
    display: grid;
    grid-template-columns: 200px minmax(0, 1fr) auto;
    align-items: center;
    gap: 4px 14px;
    min-height: 52px;
    border-bottom: 1px solid var(--rule);
  }
  li > b {
    font: 600 17px var(--slab);
  }
  li[data-owed] > span {
    color: var(--red);
    font-weight: 650;
  }
  li > button {
    min-height: 44px;
    border-color: transparent;
    font: 500 15px var(--text);
    padding: 0 8px;
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    li > b {
      grid-column: 1 / -1;
      padding-top: 6px;
    }
  }
`
const Why = styled.ul`
  font-size: 15.5px;
  li {
    padding: 6px 0;
    border-bottom: 1px solid var(--rule);
  }
`
export const Foot = styled.footer`
  position: sticky;
  bottom: 0;
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 12px;
  padding: 12px 28px;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  > button:first-child:not(:last-child) {
    margin-right: auto;
  }
  > button:last-child {
    min-width: 300px;
  }
  @media (max-width: 700px) {
    bottom: 57px;
    flex-wrap: wrap;
    padding: 8px 16px;
    gap: 8px;
    > button {
      min-height: 60px;
    }
    > button:last-child {
      flex: 1 0 100%;
      min-width: 0;
    }
  }
`
