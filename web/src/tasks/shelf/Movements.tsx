import { Link } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../domain/dates'
import { Quiet } from '../../ui/Button'
import { Num, Soft } from '../../ui/Page'

const signed = (delta: number): string => (delta > 0 ? `+${delta}` : delta < 0 ? `−${-delta}` : '0')

interface Props {
  moves: Schemas['MovementOut'][]
  /** It did not happen; only the last can be taken back. */
  onBack: ((act: string) => void) | null
}

/** What happened to a line, the last first: by how much, what was there after, who and why. */
export function Movements({ moves, onBack }: Props) {
  return (
    <>
      <Title>What happened</Title>
      {moves.length ? null : <Soft>Nothing yet.</Soft>}
      <List>
        {moves.map((move, n) => (
          <li key={n}>
            <Num>{signed(move.delta)}</Num>
            <span>
              {move.why}
              {move.drum ? (
                <>
                  {' '}
                  for{' '}
                  <Link to={move.job ? `/bench/${move.job}` : `/drums/${move.drum.split(' ').at(-1)}`}>
                    <u>{move.drum}</u>
                  </Link>
                </>
              ) : null}
              {move.place ? `, ${move.place}` : ''}
              {move.batch ? `, batch ${move.batch}` : ''}
              {move.words ? <Soft>, {move.words}</Soft> : null}
              <Soft as="small">
                {shortDate(new Date(move.at))}
                {move.by ? `, ${move.by}` : ''}
              </Soft>
            </span>
            <span>
              <Num>{move.after}</Num> <Soft>there</Soft>
              {onBack && move.act && move.act !== moves[n - 1]?.act ? (
                <Quiet onPress={() => onBack(move.act as string)}>Take it back</Quiet>
              ) : null}
            </span>
          </li>
        ))}
      </List>
    </>
  )
}

const Title = styled.h2`
  font-size: 19px;
  padding-bottom: 6px;
  border-bottom: 1px solid var(--ink);
`
const List = styled.ol`
  li {
    display: grid;
    grid-template-columns: 48px minmax(0, 1fr) auto;
    gap: 12px;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
    font-size: 15px;
  }
  small {
    display: block;
    font-size: 13px;
  }
`
