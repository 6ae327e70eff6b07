import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'
import { Answer, Lines } from './Answer'
import { NotThese } from './Reasons'

interface Props {
  found: Schemas['ChooseOut']
  onStart: ((stock: number) => void) | null
}

/** Two or three answers beside each other, what else the shelf has, and what must not go on. */
export function Found({ found, onStart }: Props) {
  return (
    <>
      {!found.answers.length ? (
        <Problem>
          For skin and rope nobody can reckon a head. Choose by hand what lies on the shelf:{' '}
          {found.others.map((line) => line.head).join(', ') || 'nothing of this size'}.
        </Problem>
      ) : null}
      <Answers>
        {found.answers.map((answer, n) => (
          <Answer key={answer.words} answer={answer} first={n === 0} onStart={onStart} />
        ))}
      </Answers>
      {found.others.length ? (
        <Others aria-label="Also on the shelf">
          <h3>Also on the shelf, and not wrong</h3>
          <Lines>
            {found.others.map((line) => (
              <li key={line.stock_item}>
                <span>
                  {line.head} <Soft>{line.free ? `${line.free} free, ${line.shelf}` : 'none free'}</Soft>
                </span>
                {onStart && line.free ? (
                  <Plain onPress={() => onStart(line.stock_item)}>Take it</Plain>
                ) : null}
              </li>
            ))}
          </Lines>
        </Others>
      ) : null}
      <NotThese found={found.excluded} />
      <p>
        <Soft>
          What changes in pitch is computed, at the same tension; the rest is common practice. A used head
          only in an emergency: a seated film does not sit on another edge (C10).
        </Soft>
      </p>
    </>
  )
}

const Answers = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 0 26px;
`
const Others = styled.div`
  padding-top: 14px;
  max-width: 520px;
  h3 {
    font: 600 16px var(--slab);
    padding-bottom: 4px;
  }
`
