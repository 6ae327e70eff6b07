import { MoveSheet } from './MoveSheet'
import { useLine } from './useShelf'

/** Pieces of the buying list arrived: how many, and what to look at before they are put away. */
export function Arrived({ line, onClose }: { line: number; onClose: () => void }) {
  const found = useLine(line)
  return found.data ? <MoveSheet line={found.data} deed="bought" onClose={onClose} /> : null
}
