import type { Act } from '../../Actions'
import type { Of } from '../../cursor'
import { doneAct, SPACE, type Given } from '../kind'
import { turnMain, turnQuiet } from '../passes/acts'

const FINEST = 1 // thirty-second

const work = ({ enter }: Given, next: Of<'read' | 'stuck' | 'cleared'>) =>
  enter({ kind: 'plan', step: next.step.id, lap: next.lapNo })

function readMain(given: Given, next: Of<'read'>): Act {
  const { bench, reading } = given
  if (reading.doubt && (reading.allRead || reading.doubt.pending))
    return { words: `Read rod ${reading.doubt.of.rod} again`, key: SPACE, run: reading.doubt.again }
  if (reading.allRead)
    return { words: 'Work out the turns', key: SPACE, run: () => work(given, next), off: next.lap.asked }
  if (bench.means === 'ear')
    return {
      words: `Level with rod ${bench.head.reference ?? 1}`,
      key: SPACE,
      run: () => reading.judge('level'),
    }
  if (bench.means === 'pitch' && !reading.typed.trim() && reading.listening.ready)
    return { words: 'Listen, hands free', key: SPACE, run: reading.listening.start }
  return {
    words: reading.middle ? 'Keep the middle' : `Keep rod ${reading.rod ?? ''}`,
    key: 'enter',
    run: reading.keep,
    off: !reading.typed.trim(),
  }
}

function clearedMain(given: Given, next: Of<'cleared'>): Act {
  const { reading } = given
  if (!reading.gauging) return doneAct(given, next.step)
  if (reading.rod !== null)
    return { words: `Keep rod ${reading.rod}`, key: 'enter', run: reading.keep, off: !reading.typed.trim() }
  return {
    words: 'Judge the pull',
    key: SPACE,
    run: () => {
      work(given, next)
      reading.gauge(false)
    },
  }
}

function stuckMain(given: Given, next: Of<'stuck'>): Act {
  if (given.bench.step_32 === FINEST) return doneAct(given, next.step, 'Leave it so')
  return {
    words: 'Work in 1/32 turns',
    key: SPACE,
    run: () => {
      given.enter({ kind: 'step_size', step_32: FINEST })
      work(given, next)
    },
  }
}

function turnAndTapMain(given: Given, next: Of<'turn'>): Act {
  const { tapping, working, typed, rod, keep } = given.reading
  const turned = turnMain(given, next)
  if (!tapping) return turned
  if (typed.trim()) return { words: `Keep rod ${rod ?? next.rod}`, key: 'enter', run: keep }
  return { ...turned, words: 'Turned, not tapped', off: turned.off || working }
}

/** The deed of the big button. */
export function clearMain(given: Given): Act | null {
  const { next } = given
  switch (next.kind) {
    case 'turn':
      return turnAndTapMain(given, next)
    case 'read':
      return readMain(given, next)
    case 'cleared':
      return clearedMain(given, next)
    case 'stuck':
      return stuckMain(given, next)
    default:
      return null
  }
}

/** What a close call may have been instead, and what would settle it. */
function settling({ listening: { last, takeSecond }, otherMuted, muteOther }: Given['reading']): Act[] {
  return [
    ...(last?.second ? [{ words: `Rather ${last.second.hz.toFixed(1)} Hz`, key: 'Q', run: takeSecond }] : []),
    ...(last?.ask === 'mute' && !otherMuted
      ? [{ words: 'Mute the other head', key: 'Z', run: () => muteOther(true) }]
      : []),
  ]
}

/** What can be heard beside the rods, and putting a round right that was tapped in another order. */
function readQuiet({ bench, reading, enter }: Given, next: Of<'read'>): Act[] {
  const hearing: Act[] =
    bench.means === 'pitch'
      ? [
          reading.middle
            ? { words: 'Back to the rods', key: '*', run: () => reading.toMiddle(false) }
            : {
                words: reading.listening.last?.ask === 'middle' ? 'Tap the middle once' : 'Tap the middle',
                key: '*',
                run: () => reading.toMiddle(true),
              },
          ...settling(reading),
          ...(reading.tapped ? [{ words: 'Put the readings right', key: '<', run: reading.putRight }] : []),
          together(reading),
        ]
      : []
  const enough = () => enter({ kind: 'step_done', step: next.step.id })
  const left = next.step.laps[next.lapNo - 1]?.left
  const words = left?.ask === 'done' ? 'Leave it so' : 'Even enough as it is'
  return next.lapNo > 0 || next.step.again ? [...hearing, { words, key: 'F', run: enough }] : hearing
}

/** One switch, remembered on this device. */
const together = ({ turnAndTap, setTurnAndTap }: Given['reading']): Act => ({
  words: turnAndTap ? 'Turn without taps' : 'Tap after each turn',
  key: '+',
  run: () => setTurnAndTap(!turnAndTap),
})

/** Even, but not where it is wanted: that is the person's to decide. */
function keepThisPitch({ enter }: Given, { lap, step }: Of<'turn'>): Act[] {
  const plan = lap.left ?? lap.plan
  if (!plan?.even || plan.at_pitch !== false || lap.rods.some((rod) => rod.turned)) return []
  return [
    { words: 'Keep the pitch it has', key: 'F', run: () => enter({ kind: 'step_done', step: step.id }) },
  ]
}

/** The ways out of the straight path. */
export function clearQuiet(given: Given): Act[] {
  const { next, reading, enter, bench } = given
  switch (next.kind) {
    case 'turn':
      return [
        ...turnQuiet(given, next),
        ...keepThisPitch(given, next),
        ...(given.reading.tapping ? settling(reading) : []),
        ...(next.lap.plan?.means === 'ear' ? [] : [together(reading)]),
      ]
    case 'read':
      return readQuiet(given, next)
    case 'cleared':
      if (next.lap.plan?.means !== 'pitch') return []
      return reading.gauging
        ? [{ words: 'Leave the gauge', key: 'G', run: () => reading.gauge(false) }]
        : [{ words: 'Gauge each rod too', key: 'G', run: () => reading.gauge(true) }]
    case 'stuck': {
      const { plan } = next.lap
      return [
        {
          words: 'Tap round again',
          key: 'R',
          run: () => plan && enter({ kind: 'undo', event: plan.event }),
        },
        ...(bench.step_32 === FINEST
          ? []
          : [
              {
                words: 'Leave it so',
                key: 'F',
                run: () => enter({ kind: 'step_done', step: next.step.id }),
              },
            ]),
      ]
    }
    default:
      return []
  }
}
