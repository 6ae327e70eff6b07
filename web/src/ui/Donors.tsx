import styled from 'styled-components'
import { Plain } from './Button'

interface Props {
  need: string
  donors: readonly { tag: string; name: string; rod: number; words: string }[]
  refused: readonly string[]
  onPick: (tag: string, rod: number) => void
}

/** Who could give a rod, best first: one press takes it. */
export function Donors({ need, donors, refused, onPick }: Props) {
  return (
    <Box aria-label="Who could give a rod">
      {need ? <p>{need}</p> : null}
      {donors.map((each) => (
        <Plain key={each.tag} onPress={() => onPick(each.tag, each.rod)}>
          <span>
            {each.name}’s batter, rod {each.rod}
            <small>
              {each.tag}; {each.words}
            </small>
          </span>
        </Plain>
      ))}
      {donors.length ? null : <p>No drum here can spare one.</p>}
      {refused.length ? <small>Not {refused.join('; not ')}.</small> : null}
    </Box>
  )
}

const Box = styled.section`
  display: flex;
  flex-direction: column;
  gap: 6px;
  button {
    padding: 7px 14px;
  }
  small {
    display: block;
    font: 400 14px/1.35 var(--text);
    color: var(--soft);
  }
`
