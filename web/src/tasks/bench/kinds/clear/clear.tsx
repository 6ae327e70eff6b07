import type { Bench, Lap, Step } from '../../log/types'
import type { Next } from '../../cursor'
import { SPACE, type Deeds, type KindView, type PanelProps } from '../kind'
import { TurnPanel } from '../passes/TurnPanel'
import { ClearedPanel, GaugePanel, StuckPanel } from './DonePanels'
import { clearMain, clearQuiet } from './acts'
import { ReadPanel } from './ReadPanel'
import { TapNow } from './TapNow'
import { turning } from '../passes/turning'

function next(bench: Bench, step: Step): Next {
  const lapNo = step.laps.length - 1
  const lap = step.laps[lapNo] as Lap
  if (lap.plan?.clear) return { kind: 'cleared', step, lap, lapNo }
  // Every rod of a round has a turn of its own: rod by rod, whatever the cadence of passes.
  if (lap.plan) return turning(bench, step, lap, lapNo, 'rod') ?? { kind: 'stuck', step, lap, lapNo }
  const head = bench.heads.find((each) => each.side === step.side) ?? bench.head
  const unread = head.tapping_order.find((number) => {
    const rod = lap.rods.find((each) => each.rod === number)
    return !rod?.reading && !rod?.reference
  })
  return { kind: 'read', step, lap, lapNo, rod: unread ?? null }
}

/** The field holds the keyboard; while nothing is typed the deeds keep their keys. */
function letters({ main, quiet, reading: { listening } }: Deeds): Record<string, () => void> {
  return {
    ...Object.fromEntries(quiet.filter((act) => !act.off).map((act) => [act.key.toLowerCase(), act.run])),
    ...(main && !main.off && main.key === SPACE ? { ' ': main.run, Enter: main.run } : {}),
    l: listening.state === 'off' ? listening.start : listening.stop,
  }
}

function ClearPanel({ bench, next, deeds, onWhy }: PanelProps) {
  switch (next.kind) {
    case 'turn':
      return (
        <TurnPanel
          bench={bench}
          next={next}
          exceptions={deeds.exceptions}
          onWhy={onWhy}
          working={deeds.reading.working}
          tap={
            deeds.reading.tapping ? (
              <TapNow bench={bench} next={next} reading={deeds.reading} letterKeys={letters(deeds)} />
            ) : null
          }
        />
      )
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
          letterKeys={letters(deeds)}
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
    default:
      return null
  }
}

/** Rounds of reading and turning until the head is in tune with itself. */
export const clear: KindView = { next, main: clearMain, quiet: clearQuiet, Panel: ClearPanel }
