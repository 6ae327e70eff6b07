import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Quiet } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'
import { MoveSheet } from './MoveSheet'
import { useLine, useTakeBack, type Line } from './useShelf'

/** Pieces of the buying list arrived: as many as were to be bought, until somebody says otherwise, and what to look at before they are put away. */
export function Arrived({ buy, onDone, onClose }: Props) {
  const found = useLine(buy.line ?? 0)
  return found.data ? (
    <MoveSheet line={found.data} deed="bought" proposed={buy.count} onDone={onDone} onClose={onClose} />
  ) : null
}

interface Props {
  buy: Schemas['BuyOut']
  onDone: (line: Line) => void
  onClose: () => void
}

/** What was put on the shelf just now; wrong, it is one press. */
export function JustArrived({ line, onBack }: { line: Line; onBack: () => void }) {
  const back = useTakeBack(line.row.id)
  const [last] = line.movements
  if (!last) return null
  return (
    <Strip role="status">
      <b>
        {last.delta} × {line.called}
      </b>{' '}
      <Soft>put on the shelf, {last.after} there now.</Soft>
      {last.act ? (
        <Quiet
          isDisabled={back.isPending}
          onPress={() => back.mutate(last.act as string, { onSuccess: onBack })}
        >
          Take it back
        </Quiet>
      ) : null}
      {back.error ? <Problem>{back.error.message}</Problem> : null}
    </Strip>
  )
}

const Strip = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  padding: 6px 28px;
  background: var(--faint);
  border-bottom: 1px solid var(--rule);
  @media (max-width: 700px) {
    padding: 6px 16px;
  }
`
