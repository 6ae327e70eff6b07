import { ClearedPanel, GaugePanel, StuckPanel } from './kinds/clear/DonePanels'
import { ReadPanel } from './kinds/clear/ReadPanel'
import { ClosedPanel } from './kinds/close/ClosedPanel'
import { ClosePanel } from './kinds/close/ClosePanel'
import { PassesDonePanel } from './kinds/passes/PassesDonePanel'
import { TurnPanel } from './kinds/passes/TurnPanel'
import { RestPanel } from './kinds/rest/RestPanel'
import { TickPanel } from './kinds/tick/TickPanel'
import type { Bench } from './log/types'
import type { Next } from './cursor'
import type { Deeds } from './useDeeds'

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
      return <TurnPanel bench={bench} next={next} exceptions={deeds.exceptions} onWhy={onWhy} />
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
      return <RestPanel step={next.step} />
    case 'close':
      return <ClosePanel bench={bench} days={checkDays} {...deeds.closing} />
    case 'closed':
      return <ClosedPanel bench={bench} />
  }
}
