import { HeadPlan } from './HeadPlan'
import { missingRods } from './knownMarks'
import type { Look, Mark, Tick, WalkDrum } from './log/fold'
import { PartPicture } from './PartPicture'
import type { useLook } from './useLook'

interface Props {
  drum: WalkDrum
  look: Look
  hand: ReturnType<typeof useLook>
  marks: readonly Mark[]
  known: readonly Mark[]
  tickOf: (finding: string) => Tick | undefined
}

/** The part of the drum that is looked at: a head from above, or wires, shell and hardware. */
export function DrumPicture({ drum, look, hand, marks, known, tickOf }: Props) {
  const { part } = hand
  const inHand = hand.inHand?.event ?? null
  if (part !== 'batter' && part !== 'resonant')
    return <PartPicture {...{ drum, part, marks, known, inHand, tickOf }} />
  return (
    <HeadPlan
      {...{ drum, marks, known, inHand }}
      side={part}
      missing={missingRods(drum, look, part)}
      picked={hand.spot}
      rod={hand.rod}
      onSpot={hand.touch}
      onRod={hand.touchRod}
    />
  )
}
