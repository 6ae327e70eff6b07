import type { Next } from '../state/next'
import type { Bench } from '../state/types'
import type { Deeds } from '../useDeeds'
import { ClosePanel } from './ClosePanel'
import { ClearedPanel, ClosedPanel, GaugePanel, PassesDonePanel, StuckPanel } from './DonePanels'
import { ReadPanel } from './ReadPanel'
import { RestPanel } from './RestPanel'
import { TickPanel } from './TickPanel'
import { TurnPanel } from './TurnPanel'

interface Props {
  bench: Bench
  next: Next
  deeds: Deeds
  onWhy: () => void
  checkDays: number
}

/** The instruction that fits what is next. */
export function PanelFor({ bench, next, deeds, onWhy, checkDays }: Props) {
  switch (next.kind) {
    case 'tick':
      return <TickPanel step={next.step} />
    case 'turn':
      return <TurnPanel bench={bench} next={next} onWhy={onWhy} />
    case 'passes-done':
      return <PassesDonePanel next={next} />
    case 'read':
      return (
        <ReadPanel
          bench={bench}
          next={next}
          reading={deeds.reading}
          onTarget={deeds.target}
          onMeans={deeds.means}
          onWhole={deeds.whole}
          onUneven={deeds.uneven}
        />
      )
    case 'cleared':
      return deeds.reading.gauging ? (
        <GaugePanel next={next} reading={deeds.reading} />
      ) : (
        <ClearedPanel bench={bench} next={next} />
      )
    case 'stuck':
      return <StuckPanel bench={bench} next={next} />
    case 'rest':
      return <RestPanel bench={bench} step={next.step} />
    case 'close':
      return <ClosePanel bench={bench} days={checkDays} {...deeds.closing} />
    case 'closed':
      return <ClosedPanel bench={bench} />
  }
}
