import styled from 'styled-components'
import { Key, Quiet } from '../../ui/Button'
import { Soft } from '../../ui/Page'
import type { Degree, Mark, Tick, WalkDrum } from './log/fold'
import { DEGREES, placeWords } from './words'

interface Props {
  mark: Mark
  tick: Tick
  drum: WalkDrum
  onDegree: (degree: Degree) => void
  onNote: () => void
  onPhoto: () => void
  onEnough: () => void
}

/** What was ticked last: how bad, in three honest sentences, and where. */
export function InHand({ mark, tick, drum, onDegree, onNote, onPhoto, onEnough }: Props) {
  const place = placeWords(mark, drum)
  const onHead = mark.side !== null && tick.where === 'head'
  return (
    <Box aria-label={tick.words} role="region" data-inhand>
      <h2>
        {tick.words}
        {place ? <Soft>, {place}</Soft> : null}
      </h2>
      {tick.degrees.length === 3 ? (
        <Degrees role="group" aria-label="How bad">
          {tick.degrees.map((sentence, n) => {
            const degree = (n + 1) as Degree
            return (
              <button
                key={sentence}
                type="button"
                aria-pressed={mark.degree === degree}
                onClick={() => onDegree(degree)}
              >
                <b>{DEGREES[degree]}</b>
                {sentence}
              </button>
            )
          })}
        </Degrees>
      ) : (
        <p>{tick.degrees[0]}</p>
      )}
      <Line>
        {onHead && !mark.spot ? <Soft>Tap the drum where it sits.</Soft> : null}
        <Quiet onPress={onNote}>{mark.note ? `“${mark.note}”` : 'A word about it'}</Quiet>
        <Quiet onPress={onPhoto}>
          Photo <Key>P</Key>
        </Quiet>
        <Quiet onPress={onEnough}>
          That’s it <Key>esc</Key>
        </Quiet>
      </Line>
    </Box>
  )
}

const Box = styled.section`
  border-left: 4px double var(--ink);
  background: var(--lifted);
  padding: 8px 14px 2px;
  h2 {
    font-size: 18px;
  }
`
const Degrees = styled.div`
  display: grid;
  gap: 4px;
  padding-top: 6px;
  button {
    display: grid;
    grid-template-columns: 62px 1fr;
    align-items: baseline;
    min-height: 48px;
    padding: 4px 10px;
    border: 1.5px solid var(--rule);
    border-radius: 2px;
    background: transparent;
    text-align: left;
    cursor: pointer;
    line-height: 1.3;
  }
  button[aria-pressed='true'] {
    border-color: var(--ink);
    background: var(--ink);
    color: var(--on-ink);
  }
  b {
    font: 600 15px var(--slab);
  }
`
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 6px;
  min-height: 48px;
  > button {
    padding: 0 6px;
  }
`
