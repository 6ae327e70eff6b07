import styled from 'styled-components'
import { Main, Plain } from '../../ui/Button'
import { Dialog } from '../../ui/Dialog'
import type { Standing } from './log/fold'
import type { Enter } from './useCallout'

const MINUTES = [2, 3, 5, 8, 10, 12, 15, 20, 30, 45]

interface Props {
  stands: Standing
  left: number
  enter: Enter
  onClose: () => void
  onOver: () => void
}

/** They are late, or early: so many minutes from now. What is left is planned anew at once. */
export function ClockDialog({ stands, left, enter, onClose, onOver }: Props) {
  const set = (minutes: number) => {
    enter({ kind: 'clock', minutes })
    onClose()
  }
  return (
    <Dialog title={stands.clock ? 'How long now?' : 'How long until they play?'} open onClose={onClose}>
      <Grid role="group" aria-label="Minutes from now">
        {MINUTES.map((minutes) => (
          <Plain key={minutes} onPress={() => set(minutes)}>
            {minutes} min
          </Plain>
        ))}
        {stands.clock && !stands.over
          ? [-2, 5].map((more) => (
              <Plain
                key={more}
                onPress={() => set(Math.max(0, Math.round((left + more) * 10) / 10))}
                aria-label={more > 0 ? `${more} minutes more` : `${-more} minutes less`}
              >
                {more > 0 ? `+${more}` : `−${-more}`}
              </Plain>
            ))
          : null}
      </Grid>
      {stands.clock && !stands.over ? (
        <Main
          onPress={() => {
            enter({ kind: 'over' })
            onClose()
            onOver()
          }}
        >
          They play: stop here
        </Main>
      ) : null}
    </Dialog>
  )
}

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(92px, 1fr));
  gap: 10px;
  button {
    justify-content: center;
    min-height: 56px;
    padding: 0 6px;
  }
`
