import { useState } from 'react'
import styled from 'styled-components'
import type { Body, BenchEntry } from '../../api/outbox'
import { ForReaders } from '../../ui/ForReaders'
import { Page } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { Actions } from './Actions'
import { AsideSheet } from './aside/AsideSheet'
import { Beside } from './Beside'
import { BoardHead } from './BoardHead'
import { Disputes } from './Disputes'
import { Ladder } from './ladder/Ladder'
import { Otherwise } from './kinds/passes/Otherwise'
import { WhySheet } from './kinds/clear/WhySheet'
import { stepNow } from './cursor'
import { nextOf } from './next'
import { PanelFor } from './PanelFor'
import type { Bench } from './log/types'
import { StepList } from './StepList'
import { Strip } from './Strip'
import { useDeeds } from './useDeeds'
import { FoundSheet } from './findings/FoundSheet'
import { useFindings } from './findings/useFindings'
import { spoken } from './say/words'
import { useSay } from './say/useSay'
import { WaysSheet } from './ways/WaysSheet'

type Sheet = 'why' | 'otherwise' | 'found' | 'ways' | 'aside'

interface Props {
  bench: Bench
  enter: (body: Body) => void
  refused: BenchEntry[]
  waiting: boolean
  mayChange: boolean
  checkDays: number
}

/** The bench: one instruction, the ladder, the next action always in the same place. */
export function Board({ bench, enter, refused, waiting, mayChange, checkDays }: Props) {
  const next = nextOf(bench)
  useFindings(bench.kind)
  const [sheet, setSheet] = useState<Sheet | null>(null)
  const deeds = useDeeds({ bench, next, enter, open: setSheet, mayChange })
  const lap = 'lap' in next ? next.lap : null
  const now = stepNow(bench)
  const rod = next.kind === 'turn' ? next.rod : next.kind === 'read' ? deeds.reading.rod : null
  const together = next.kind === 'turn' && next.group.length > 1
  const words = spoken(bench, next, rod)
  const say = useSay(words)
  const mayPlan = mayChange && bench.state === 'open'
  useKeys({ v: say.there ? say.toggle : undefined, j: mayPlan ? () => setSheet('ways') : undefined })
  const allBut = (each: number) => deeds.exceptions.toggle(each, 'out')
  const onRod = next.kind === 'read' ? deeds.reading.choose : together ? allBut : undefined
  // The field holds the keyboard: what a letter would write is pale in sight.
  const fields = next.kind === 'read' || deeds.reading.tapping
  const typing = {
    'data-typing': (fields && deeds.reading.typed !== '') || undefined,
    'data-typing-notes': (fields && bench.means === 'pitch' && deeds.reading.rod !== null) || undefined,
  }
  return (
    <Grid data-kind={next.kind} {...typing}>
      <BoardHead
        bench={bench}
        say={say}
        onWays={mayPlan ? () => setSheet('ways') : null}
        onAside={mayPlan ? () => setSheet('aside') : null}
      />
      <StepList bench={bench} now={now} />
      {/* One region that is always there: what comes into a new one is not announced. */}
      <ForReaders aria-live="polite">{say.on ? '' : words}</ForReaders>
      <Disputes bench={bench} refused={refused} enter={enter} />
      <PanelFor bench={bench} next={next} deeds={deeds} onWhy={() => setSheet('why')} checkDays={checkDays} />
      <Actions main={deeds.main} quiet={deeds.quiet} />
      <Beside bench={bench} step={now} enter={enter} mayChange={mayChange}>
        {lap ? (
          <Ladder bench={bench} lap={lap} rod={rod} onRod={onRod} exceptions={deeds.exceptions.of} />
        ) : null}
      </Beside>
      <Strip bench={bench} next={next} waiting={waiting} onWhy={() => setSheet('why')} />
      {sheet === 'why' && lap ? (
        <WhySheet lap={lap} badge={bench.badge} count={bench.head.rods} onClose={() => setSheet(null)} />
      ) : null}
      {sheet === 'found' && next.kind !== 'closed' ? (
        <FoundSheet
          bench={bench}
          step={next.step}
          rod={together ? null : rod}
          enter={enter}
          onClose={() => setSheet(null)}
        />
      ) : null}
      {sheet === 'aside' ? <AsideSheet job={bench.id} onClose={() => setSheet(null)} /> : null}
      {sheet === 'ways' ? <WaysSheet bench={bench} enter={enter} onClose={() => setSheet(null)} /> : null}
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
  @media (max-height: 520px) and (max-width: 1000px) {
    grid-template-rows: auto auto auto minmax(0, 1fr) auto auto auto;
    grid-template-areas: 'head' 'disputes' 'instruction' 'ladder' 'strip' 'steps' 'actions';
    > header {
      padding: 4px 16px;
      gap: 0 12px;
    }
  }
`
