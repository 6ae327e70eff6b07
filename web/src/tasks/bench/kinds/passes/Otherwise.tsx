import { useState } from 'react'
import styled from 'styled-components'
import { amountOf, turnNoun, turns32, turnWords } from '../../../../domain/turns'
import { Main, Plain } from '../../../../ui/Button'
import { Dialog } from '../../../../ui/Dialog'
import { Tally } from '../../../../ui/Tally'

interface Props {
  rod: number
  owed: number
  step: number
  onClose: () => void
  onTurned: (turns: number) => void
}

const QUARTER = 8
const MOST = 4 * 32

/** Enter what was really turned, by steps: the count is only as good as its honesty. */
export function Otherwise({ rod, owed, step, onClose, onTurned }: Props) {
  const [turns, setTurns] = useState(owed)
  const by = (amount: number) => () => setTurns((now) => Math.max(-MOST, Math.min(MOST, now + amount)))
  const moves: [string, number][] = [
    [`− ${amountOf(turns32(QUARTER))}`, -QUARTER],
    [`− ${amountOf(turns32(step))}`, -step],
    [`+ ${amountOf(turns32(step))}`, step],
    [`+ ${amountOf(turns32(QUARTER))}`, QUARTER],
  ]
  return (
    <Dialog title={`Rod ${rod}: what was really turned?`} open onClose={onClose}>
      <Shown>
        <Tally turns={turns32(turns)} size={44} words="said" />
        <p aria-live="polite">
          {turnWords(turns32(turns))} {turns ? turnNoun(turns32(turns)) : ''}
        </p>
      </Shown>
      <Row>
        {moves.map(([words, amount]) => (
          <Plain key={words} onPress={by(amount)}>
            {words}
          </Plain>
        ))}
        <Plain onPress={() => setTurns(-turns)}>other way</Plain>
      </Row>
      <p>asked: {turnWords(turns32(owed))}</p>
      <Main onPress={() => onTurned(turns)} autoFocus>
        Turned this much
      </Main>
    </Dialog>
  )
}

const Shown = styled.div`
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-height: 120px;
  justify-content: end;
  p {
    font: 650 32px/1 var(--slab);
  }
`
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  > button {
    min-height: 56px;
  }
`
