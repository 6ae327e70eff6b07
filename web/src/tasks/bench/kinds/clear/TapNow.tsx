import type { Of } from '../../cursor'
import type { Bench } from '../../log/types'
import { DoubtNote } from './DoubtNote'
import { ListenLine } from './listening/ListenLine'
import type { Reading } from './reading'
import { TypeIt } from './TypeIt'

interface Props {
  bench: Bench
  next: Of<'turn'>
  reading: Reading
  letterKeys: Readonly<Record<string, () => void>>
}

/** Turn and tap: the rod in hand is turned and then tapped, or any rod is read; what is left is planned from it. */
export function TapNow({ bench, next, reading, letterKeys }: Props) {
  const { listening } = reading
  const typing = (
    <div key="typing">
      {reading.doubt ? <DoubtNote doubt={reading.doubt} pitch={bench.means === 'pitch'} /> : null}
      <TypeIt
        what={`rod ${reading.rod ?? next.rod}`}
        round={next.lapNo}
        means={bench.means}
        {...{ reading, letterKeys }}
      />
    </div>
  )
  if (bench.means !== 'pitch') return typing
  const ears = <ListenLine key="ears" job={bench.id} listening={listening} simulated={bench.simulated} />
  return listening.state === 'off' ? [typing, ears] : [ears, typing]
}
