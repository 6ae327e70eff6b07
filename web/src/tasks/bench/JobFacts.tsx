import styled from 'styled-components'
import { hz } from '../../domain/pitch'
import { Num, Soft } from '../../ui/Page'
import { Bearing } from '../../ui/Bearing'
import { Ring } from './asks/Ring'
import type { Bench, Step } from './log/types'
import { StepPicture } from './pictures/StepPicture'

/** Beside steps without turns: the drum from above and what this job is about. */
export function JobFacts({ bench, step }: { bench: Bench; step: Step | undefined }) {
  const aboutHead = bench.part !== 'wires' && bench.part !== 'hardware'
  if (step?.picture)
    return (
      <Picture>
        <StepPicture bench={bench} step={step} />
      </Picture>
    )
  const sat = step?.recalls.filter((each) => each.options.length) ?? []
  if (sat.length)
    return (
      <Picture>
        <Ring asks={sat} badge={bench.badge} alone />
      </Picture>
    )
  return (
    <Wrap>
      <Bearing
        rods={bench.head.rods}
        lost={bench.head.lost}
        badge={bench.badge}
        now={bench.head.rods ? 1 : null}
        size={250}
        wires={bench.snare}
        label={`${bench.head.side} head from above${bench.head.rods ? `, ${bench.head.rods} rods, rod 1 marked` : ''}`}
      />
      <dl>
        {bench.head.new_head ? (
          <div>
            <dt>New head</dt>
            <dd>{bench.head.new_head}</dd>
          </div>
        ) : null}
        {aboutHead ? <AboutHead bench={bench} /> : null}
        <div>
          <dt>Opened</dt>
          <dd>by {bench.opened_by}</dd>
        </div>
      </dl>
    </Wrap>
  )
}

/** What is on it, what it is wanted at, and in which order its rods go. */
function AboutHead({ bench }: { bench: Bench }) {
  return (
    <>
      <div>
        <dt>{bench.head.new_head ? 'Old head' : 'Head'}</dt>
        <dd>
          {bench.head.old_head || 'not on record'}
          {bench.head.reason ? <Soft>, {bench.head.reason}</Soft> : null}
        </dd>
      </div>
      <div>
        <dt>Wanted</dt>
        <dd>
          {bench.head.target_hz ? (
            <>
              <Num>{hz(bench.head.target_hz)}</Num> Hz, {bench.head.target_note}
            </>
          ) : (
            'the pitch it comes to'
          )}
        </dd>
      </div>
      {bench.head.rods ? (
        <div>
          <dt>Order</dt>
          <dd>
            {bench.pattern.replace('-', ' ')}
            {bench.head.pattern_note ? <Soft>. {bench.head.pattern_note}</Soft> : null}
          </dd>
        </div>
      ) : null}
    </>
  )
}

const Picture = styled.div`
  display: grid;
  place-items: center;
  @media (min-width: 1001px) {
    &&& {
      flex: 1 1 0; /* it takes what the questions leave, and shrinks before anything is cut off */
    }
    grid-template: minmax(0, 1fr) / minmax(0, 1fr);
    min-height: 200px;
    > svg {
      width: 100%;
      height: 100%;
      max-width: 640px;
      max-height: 520px;
    }
  }
  @media (max-width: 1000px) {
    > svg {
      max-height: 46dvh;
    }
  }
  padding: 20px 28px;
`
const Wrap = styled.div`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  align-items: center;
  align-content: center;
  gap: 16px 36px;
  padding: 20px 28px;
  dl > div {
    display: grid;
    grid-template-columns: 84px 1fr;
    gap: 10px;
    padding: 9px 0;
    border-top: 1px solid var(--rule);
  }
  dt {
    color: var(--soft);
    font-size: 14px;
    padding-top: 1px;
  }
  @media (max-width: 700px) {
    grid-template-columns: 1fr;
    padding: 12px 16px;
    > svg {
      margin: 0 auto;
      width: 220px;
      height: 220px;
    }
  }
`
