import { Link } from 'react-router'
import styled from 'styled-components'
import { Plain } from '../../ui/Button'
import { Head, Num, Soft } from '../../ui/Page'
import type { Verdict, Walk, WalkDrum } from './log/fold'

/** How old in words: 'new', '1 month', '14 months'. */
const age = (months: number): string => (months === 0 ? 'new' : months === 1 ? '1 month' : `${months} months`)

/** What is fitted, as the record has it. */
const headsWords = (drum: WalkDrum): string =>
  drum.heads
    .map((each) =>
      [`${each.side} ${each.head}`, each.months === null ? '' : age(each.months)].filter(Boolean).join(', '),
    )
    .join('; ')

interface Props {
  walk: Walk
  drum: WalkDrum
  /** The look before this one, to be looked at once more. */
  before: Verdict | undefined
  onList: () => void
}

/** Which drum is in hand, how far the walk is, what is fitted, and what the drum before came to. */
export function DrumHead({ walk, drum, before, onList }: Props) {
  const at = walk.drums.findIndex((each) => each.tag === drum.tag)
  const nameBefore = walk.drums.find((each) => each.tag === before?.tag)?.name
  return (
    <>
      <Top>
        <h1>{drum.name}</h1>
        <Num>{drum.tag}</Num>
        <Soft>
          {drum.kind_words}, {drum.size}
        </Soft>
        <Where data-end>
          <Plain onPress={onList}>
            {walk.name === drum.name ? drum.place : `${walk.name}, ${at + 1} of ${walk.drums.length}`}
          </Plain>
        </Where>
      </Top>
      <Under>
        <Soft>{headsWords(drum) || 'Nothing on record as fitted.'}</Soft>
        {before ? (
          <Link to={`/inspect/${walk.id}?at=${encodeURIComponent(before.tag)}`}>
            {nameBefore}: {before.headline}
          </Link>
        ) : null}
      </Under>
    </>
  )
}

const Top = styled(Head)`
  @media (max-width: 700px) {
    flex-wrap: nowrap;
    gap: 10px;
    padding: 8px 16px;
    align-items: center;
    > span:not([data-end]):last-of-type,
    > h1 + span + span {
      display: none;
    }
    > [data-end] {
      display: block;
    }
    h1 {
      overflow-wrap: anywhere;
    }
  }
`
const Where = styled.span`
  flex: none;
  button {
    min-height: 44px;
    margin: -8px 0;
    border-color: var(--rule);
    font: 500 15.5px var(--text);
  }
  @media (max-width: 700px) {
    button {
      margin: 0;
      padding: 0 10px;
      font-size: 14px;
      max-width: 46vw;
    }
  }
`
const Under = styled.p`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 20px;
  padding: 7px 28px;
  border-bottom: 1px solid var(--rule);
  font-size: 14.5px;
  a {
    text-decoration: underline;
    text-decoration-thickness: 1px;
    text-underline-offset: 3px;
  }
  @media (max-width: 700px) {
    padding: 3px 16px;
    font-size: 13px;
  }
`
