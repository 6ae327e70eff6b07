import styled from 'styled-components'
import { Plain } from '../ui/Button'
import { Dialog } from '../ui/Dialog'

const KEYS: readonly (readonly [string, string])[] = [
  ['Space, →, Page Down', 'the one next thing: the big button'],
  ['U, ←, Page Up', 'undo the last entry'],
  ['E', 'turned otherwise: enter what was really turned'],
  ['S', 'skip this rod, or these'],
  ['C', 'confirm turns rod by rod, by facing pair, or by pass'],
  ['X', 'something found on the drum'],
  ['J', 'ways of this job: another school from here on'],
  ['P', 'at the mark: a photo of how it sits'],
  ['V', 'read the next thing out, or be silent'],
  ['W', 'why this much?'],
  ['Q', 'after a tap that may have been another pitch: take that one'],
  ['A', 'clearing: tap each rod after its turn, or not'],
  ['Enter', 'in a reading: keep it and go to the next rod'],
  ['↑ ↓', 'in a list: move; in a reading: the rod before or after'],
  ['/', 'search the register'],
  ['1 to 9', 'at a drum you look at: tick what you see; again takes it back'],
  ['↑ ↓, ← →', 'at a drum you look at: worse or milder; the next part of the drum'],
  ['A', 'at a drum you look at: all as last time'],
  ['G  H  N', 'it goes out; it is not here; on to the next one'],
  ['N  [ ]', 'before a show: it cannot be done; the part before, the part after'],
  ['C  O', 'on the Shelf: count a place; what is to be bought'],
  ['T  D  B  I  Y  !  K', 'Today, Drums, Bench, Inspect, Kits, call-outs, Shelf (stock)'],
  ['L', 'light: Bench theme or Stage theme'],
  ['?', 'this sheet'],
]

export function KeyMapSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog title="Keys" open={open} onClose={onClose}>
      <List>
        {KEYS.map(([key, words]) => (
          <div key={key}>
            <dt>{key}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </List>
      <p>A page-turn pedal that sends Page Down and Page Up works the bench by foot.</p>
      <div>
        <Plain onPress={onClose} autoFocus>
          Close
        </Plain>
      </div>
    </Dialog>
  )
}

const List = styled.dl`
  div {
    display: grid;
    grid-template-columns: 190px 1fr;
    gap: 12px;
    padding: 7px 0;
    border-top: 1px solid var(--rule);
  }
  dt {
    font: 500 13px/1.6 var(--mono);
  }
  @media (max-width: 500px) {
    div {
      grid-template-columns: 1fr;
      gap: 0;
    }
  }
`
