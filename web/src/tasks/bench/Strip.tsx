import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { hz } from '../../domain/pitch'
import { amountOf, turns32 } from '../../domain/turns'
import { Soft } from '../../ui/Page'
import { pitchSeal, Seal, sealWords, tensionSeal } from './kinds/clear/Seals'
import { rodsRead, stepNow, type Next } from './cursor'
import type { Bench, Lap } from './log/types'

/** Turns since finger-tight, in words: all alike, or from the least to the most. */
function tallyWords(bench: Bench): string {
  const turns = bench.head.tally?.map((each) => each.turns_32) ?? []
  if (!turns.length)
    return bench.steps.some((step) => step.kind === 'passes')
      ? 'counts from finger-tight'
      : 'not counted from fingers in this job'
  const [least, most] = [Math.min(...turns), Math.max(...turns)]
  if (least === most) return `every rod ${amountOf(turns32(least))} from fingers`
  return `${amountOf(turns32(least))} to ${amountOf(turns32(most))} from fingers`
}

function roundWords(lap: Lap | null): string {
  const plan = lap?.plan
  if (!plan) {
    return lap ? `${rodsRead(lap)} of ${lap.rods.length} rods read` : ''
  }
  const unit = plan.unit ? ` ${plan.unit}` : ''
  if (plan.means === 'ear') return plan.clear ? 'all sound level' : 'level by ear, if all goes well'
  const [spread, mean] = plan.clear ? [plan.spread, plan.mean] : [plan.predicted_spread, plan.predicted_mean]
  const wanted = hz(mean) === hz(plan.wanted) ? '' : `, wanted ${hz(plan.wanted)}`
  return `within ${hz(spread)}${unit} round ${hz(mean)}${wanted}`
}

function spreadWords(plan: NonNullable<Lap['plan']>): string {
  if (plan.means === 'ear') return plan.verdict
  return `spread ${hz(plan.spread)}, up to ${hz(plan.allowed)} is even`
}

interface Props {
  bench: Bench
  next: Next
  waiting: boolean
  onWhy: () => void
}

/** What is known at this moment: the last entry, the round, and the two seals. Each can be asked why. */
export function Strip({ bench, next, waiting, onWhy }: Props) {
  const clear = bench.steps.findLast(
    (step) =>
      step.kind === 'clear' && step.side === bench.head.side && (step.done || step === stepNow(bench)),
  )
  const lap =
    clear && (next.kind === 'read' || next.kind === 'cleared' || clear.laps.some((each) => each.plan))
      ? (clear.laps.at(-1) ?? null)
      : null
  const shown = lap && !lap.plan && next.kind !== 'read' ? (clear?.laps.at(-2) ?? lap) : lap
  const plan = shown?.plan ?? null
  const last = bench.undo[0]
  const pitch = pitchSeal(plan)
  const tension = tensionSeal(plan)
  const turns = bench.steps.some(({ kind }) => kind === 'clear' || kind === 'passes')
  const asks = Boolean(plan && 'lap' in next && next.lap.plan)
  return (
    <Foot aria-label="Now">
      <p>
        <b>Last entry{waiting ? ', on its way' : ''}</b>
        <span>{last?.words ?? 'none yet'}</span>
      </p>
      {turns ? (
        <>
          <Asked isDisabled={!asks} onPress={onWhy}>
            <span>
              <b>{plan && !plan.clear ? 'Expected after this round' : 'This round'}</b>
              <span>{roundWords(shown) || <Soft>not tapped yet</Soft>}</span>
            </span>
          </Asked>
          <Asked isDisabled={!asks} onPress={onWhy} data-testid="pitch-seal">
            <Seal kind="pitch" state={pitch} />
            <span>
              <b>{sealWords('pitch', pitch)}</b>
              <span>{plan ? spreadWords(plan) : <Soft>tap round to know</Soft>}</span>
            </span>
          </Asked>
          <Asked isDisabled={!asks} onPress={onWhy} data-testid="tension-seal">
            <Seal kind="tension" state={tension} />
            <span>
              <b>{sealWords('tension', tension)}</b>
              <span>{tallyWords(bench)}</span>
            </span>
          </Asked>
        </>
      ) : null}
    </Foot>
  )
}

const Foot = styled.footer`
  grid-area: strip;
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 8px 24px;
  align-items: center;
  padding: 14px 28px;
  background: var(--lifted);
  border-top: 1px solid var(--rule);
  font-size: 14.5px;
  line-height: 1.35;
  > p > b,
  > p > span,
  > button > span > b,
  > button > span > span {
    display: block;
  }
  b {
    font-weight: 650;
    font-size: 15px;
  }
  @media (max-width: 1000px) {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  @media (max-width: 700px) {
    padding: 10px 16px;
    font-size: 13.5px;
  }
`
const Asked = styled(AriaButton)`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  min-width: 0;
  > span {
    min-width: 0;
  }
  &:not([data-disabled]) {
    cursor: pointer;
    b {
      text-decoration: underline dotted;
      text-underline-offset: 3px;
    }
  }
`
