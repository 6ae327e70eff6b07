import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import type { Rod } from '../log/types'
import type { Exception } from '../kinds/passes/useExceptions'
import type { End, ofPair } from './scale'
import { Turns } from './Turns'
import { ForReaders } from '../../../ui/ForReaders'

interface Props {
  number: number
  end: End
  lost: boolean
  hand: boolean
  onRod: ((rod: number) => void) | undefined
  mirror?: boolean
  /** Which of the head's pair it read. */
  of?: ReturnType<typeof ofPair>
  /** A finding is about this rod. */
  asked?: boolean
  /** How it went otherwise than the rest of its pass. */
  exception?: Exception | undefined
}

const EXCEPTIONS: Record<Exception, string> = { out: 'not yet', more: 'a touch more', there: 'was there' }

function reading(rod: Rod | null): string {
  if (rod?.reference) return 'compare'
  if (!rod?.reading) return ''
  return rod.reading.shown + (rod.reading.doubtful ? '?' : '')
}

/** One end of a beam: its number, its reading, and the strokes owed (red) or done (ink). */
export function RodEnd({ number, end, of, lost, hand, onRod, mirror, asked, exception }: Props) {
  const { rod } = end
  return (
    <Side
      data-mirror={mirror || undefined}
      data-hand={hand || undefined}
      isDisabled={!onRod || lost}
      onPress={() => onRod?.(number)}
    >
      <span>
        <b data-lost={lost || undefined}>
          <ForReaders>Rod </ForReaders>
          {number}
        </b>
        <i data-reading={rod?.reading ? '' : undefined}>{lost ? 'missing' : reading(rod)}</i>
        {of ? <small>{of}</small> : null}
        {rod?.number ? <i title="on the gauge">{rod.number}</i> : null}
        {asked ? <small>look here</small> : null}
        {exception ? <small>{EXCEPTIONS[exception]}</small> : null}
      </span>
      <Strokes>
        <Turns rod={rod} />
      </Strokes>
    </Side>
  )
}

const Side = styled(AriaButton)`
  position: relative; /* keeps the unseen word from stretching the page */
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  min-height: 48px;
  border: 0;
  padding: 0;
  background: transparent;
  text-align: left;
  flex-direction: row-reverse;
  &[data-mirror] {
    flex-direction: row;
  }
  &:not([data-disabled]) {
    cursor: pointer;
  }
  > span:first-child {
    display: flex;
    flex-direction: column;
    align-items: flex-end;
    min-width: 62px;
  }
  &[data-mirror] > span:first-child {
    align-items: flex-start;
  }
  b {
    font: 650 32px/1 var(--slab);
  }
  b[data-lost] {
    color: var(--soft);
    text-decoration: line-through;
  }
  i {
    font: 400 15px/1.3 var(--mono);
    font-style: normal;
    letter-spacing: -0.03em;
    color: var(--soft);
    min-height: 20px;
  }
  &[data-hand] i {
    color: var(--ink);
  }
  small {
    font-size: 13.5px;
    color: var(--soft);
  }
  @media (max-width: 700px) {
    flex-direction: column;
    align-items: flex-start;
    justify-content: center;
    gap: 3px;
    &[data-mirror] {
      flex-direction: column;
      align-items: flex-end;
    }
    > span:first-child,
    &[data-mirror] > span:first-child {
      flex-direction: row;
      flex-wrap: wrap;
      align-items: baseline;
      gap: 0 8px;
    }
    &[data-mirror] > span:first-child {
      flex-direction: row-reverse;
    }
    b {
      font-size: 25px;
    }
    i {
      font-size: 13px;
    }
    &[data-mirror] figure {
      align-items: flex-end;
    }
  }
`
const Strokes = styled.span`
  min-width: 74px;
`
