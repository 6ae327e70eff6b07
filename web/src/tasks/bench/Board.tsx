import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import type { Body, Entry } from '../../api/outbox'
import { elapsed } from '../../domain/dates'
import { Head, Num, Page, Soft } from '../../ui/Page'
import { Actions } from './Actions'
import { Disputes } from './Disputes'
import { JobFacts } from './JobFacts'
import { Ladder } from './ladder/Ladder'
import { Otherwise } from './Otherwise'
import { PanelFor } from './panels/PanelFor'
import { nextOf, stepNow } from './state/next'
import type { Bench } from './state/types'
import { StepList } from './StepList'
import { Strip } from './Strip'
import { useDeeds } from './useDeeds'
import { useNow } from './useNow'
import { WhySheet } from './WhySheet'

interface Props {
  bench: Bench
  enter: (body: Body) => void
  refused: Entry[]
  waiting: boolean
  mayChange: boolean
  checkDays: number
}

/** The bench: one instruction, the ladder, the next action always in the same place. */
export function Board({ bench, enter, refused, waiting, mayChange, checkDays }: Props) {
  const next = nextOf(bench)
  const [sheet, setSheet] = useState<'why' | 'otherwise' | null>(null)
  const deeds = useDeeds({ bench, next, enter, open: setSheet, mayChange })
  const lap = 'lap' in next ? next.lap : null
  const rod = next.kind === 'turn' ? next.rod : next.kind === 'read' ? deeds.reading.rod : null
  return (
    <Grid data-kind={next.kind}>
      <BoardHead bench={bench} />
      <StepList bench={bench} now={stepNow(bench)} />
      <Disputes bench={bench} refused={refused} enter={enter} />
      <PanelFor bench={bench} next={next} deeds={deeds} onWhy={() => setSheet('why')} checkDays={checkDays} />
      <Actions main={deeds.main} quiet={deeds.quiet} />
      <Right>
        {lap ? (
          <Ladder
            bench={bench}
            lap={lap}
            rod={rod}
            onRod={next.kind === 'read' ? deeds.reading.choose : undefined}
          />
        ) : (
          <JobFacts bench={bench} />
        )}
      </Right>
      <Strip bench={bench} next={next} waiting={waiting} onWhy={() => setSheet('why')} />
      {sheet === 'why' && lap ? (
        <WhySheet lap={lap} badge={bench.badge} count={bench.rods} onClose={() => setSheet(null)} />
      ) : null}
      {sheet === 'otherwise' && next.kind === 'turn' ? (
        <Otherwise
          rod={next.rod}
          owed={next.owed}
          step={bench.step_32}
          onClose={() => setSheet(null)}
          onTurned={(turns) => {
            deeds.turned(turns)
            setSheet(null)
          }}
        />
      ) : null}
    </Grid>
  )
}

function BoardHead({ bench }: { bench: Bench }) {
  const now = useNow(1000)
  const what = bench.procedure === 'new-batter-head' ? `new ${bench.side} head` : `${bench.side} head`
  return (
    <Head>
      <h1>
        <Link to={`/drums/${bench.tag}`}>{bench.name}</Link>
      </h1>
      <Num>{bench.tag}</Num>
      <Soft>
        {bench.kind_words}, {bench.size}, {bench.rods} rods, {what}
      </Soft>
      {bench.state === 'closed' ? null : (
        <Num data-end aria-label="time on this job">
          {elapsed(now - new Date(bench.opened_at).getTime())}
        </Num>
      )}
    </Head>
  )
}

const Grid = styled(Page)`
  display: grid;
  && {
    flex: none;
    height: 100dvh;
  }
  grid-template-columns: 452px minmax(0, 1fr);
  grid-template-rows: auto auto auto minmax(0, 1fr) auto auto;
  grid-template-areas: 'head head' 'steps steps' 'disputes disputes' 'instruction ladder' 'actions ladder' 'strip strip';
  > header {
    grid-area: head;
    padding: 16px 28px 12px;
  }
  > ol:first-of-type {
    grid-area: steps;
  }
  @media (max-width: 1000px) {
    && {
      flex: 1;
      height: auto;
    }
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto auto auto auto minmax(0, 1fr) auto auto;
    grid-template-areas: 'head' 'steps' 'disputes' 'instruction' 'ladder' 'strip' 'actions';
  }
  @media (max-width: 700px) {
    > header {
      padding: 10px 16px 8px;
      gap: 0 12px;
    }
    > header > span:not([data-end]):nth-child(3) {
      order: 3;
      width: 100%;
      font-size: 14px;
    }
  }
`
const Right = styled.div`
  grid-area: ladder;
  min-width: 0;
  min-height: 0;
  overflow: auto;
  border-left: 1px solid var(--rule);
  @media (max-width: 1000px) {
    border-left: 0;
    border-top: 1px solid var(--rule);
    overflow: visible;
  }
`
