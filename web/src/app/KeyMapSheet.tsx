import { Switch } from 'react-aria-components'
import styled from 'styled-components'
import { Plain } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { KEYMAP } from '../ui/keymap'
import { setLetterKeys, useLetterKeys } from '../ui/letters'

const PLACES = [...new Set(KEYMAP.map((each) => each.where))]

/** Every key; and a way to do without those of one character. */
export function KeyMapSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const on = useLetterKeys()
  return (
    <Dialog title="Keys" open={open} onClose={onClose} wide>
      <Letters isSelected={on} onChange={setLetterKeys}>
        <i />
        <span>
          Keys of one character
          <small>
            {on
              ? 'on: press to do without them on this device'
              : 'off on this device: Space, arrows and a pedal work'}
          </small>
        </span>
      </Letters>
      {PLACES.map((place) => (
        <section key={place}>
          <h3>{place || 'Everywhere'}</h3>
          <List>
            {KEYMAP.filter((each) => each.where === place).map(({ keys, words }) => (
              <div key={words}>
                <dt>{keys.join('  ')}</dt>
                <dd>{words}</dd>
              </div>
            ))}
          </List>
        </section>
      ))}
      <p>
        A page-turn pedal that sends Page Down and Page Up works the bench by foot. While a pitch is typed,
        letters from A to H begin a note.
      </p>
      <div>
        <Plain onPress={onClose} autoFocus>
          Close
        </Plain>
      </div>
    </Dialog>
  )
}

const Letters = styled(Switch)`
  display: flex;
  gap: 14px;
  align-items: flex-start;
  min-height: 48px;
  cursor: pointer;
  i {
    flex: none;
    width: 26px;
    height: 26px;
    border: 2px solid var(--ink);
    border-radius: 2px;
  }
  &[data-selected] i {
    background: linear-gradient(var(--ink), var(--ink)) center / 14px 14px no-repeat;
  }
  &[data-focus-visible] i {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
  small {
    display: block;
    color: var(--soft);
  }
`
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
