import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Soft } from '../../ui/Page'

interface Props {
  answer: Schemas['AnswerOut']
  first: boolean
  onStart: ((stock: number) => void) | null
}

/** One specification: what the shelf has of it, what speaks for and against it, what changes against the present head. */
export function Answer({ answer, first, onStart }: Props) {
  return (
    <Card data-first={first || undefined}>
      <h2>{answer.words}</h2>
      <Lines>
        {answer.lines.length ? (
          answer.lines.map((line) => (
            <li key={line.stock_item}>
              <span>
                {line.head}{' '}
                <Soft>
                  {line.free ? `${line.free} free, ${line.shelf}` : 'none free'}
                  {line.lasts ? `; ${line.lasts}${line.too_short ? ', less than asked' : ''}` : ''}
                </Soft>
              </span>
              {onStart && line.free ? <Plain onPress={() => onStart(line.stock_item)}>Take it</Plain> : null}
            </li>
          ))
        ) : (
          <li>
            <Soft>Not on the shelf in this size.</Soft>
          </li>
        )}
      </Lines>
      <h3>For it</h3>
      <ul>
        {answer.speaks_for.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
      {answer.against.length ? (
        <>
          <h3>Against it</h3>
          <ul>
            {answer.against.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </>
      ) : null}
      {answer.changes.length ? (
        <>
          <h3>Against the present head</h3>
          <dl>
            {answer.changes.map((each) => (
              <div key={each.what}>
                <dt>{each.what}</dt>
                <dd>
                  {each.words}
                  {each.computed ? null : <Soft>, as such heads usually are</Soft>}
                </dd>
              </div>
            ))}
          </dl>
        </>
      ) : null}
    </Card>
  )
}

export const Card = styled.article`
  padding-top: 8px;
  h2 {
    font-size: 21px;
    min-height: 2.4em;
  }
  border-top: 5px solid transparent;
  &[data-first] {
    border-top-color: var(--ink);
  }
  h3 {
    font: 600 15px var(--slab);
    padding: 12px 0 2px;
  }
  ul > li {
    padding: 3px 0;
    font-size: 15.5px;
    line-height: 1.35;
  }
  dl div {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 10px;
    padding: 4px 0;
    border-top: 1px solid var(--rule);
    font-size: 15px;
  }
  dt {
    color: var(--soft);
  }
  > p {
    padding-top: 8px;
    font-size: 13px;
  }
`
export const Not = styled.details`
  margin-top: 16px;
  border-top: 1px solid var(--rule);
  summary {
    min-height: 46px;
    display: flex;
    align-items: center;
    font: 600 16px var(--slab);
    cursor: pointer;
  }
  summary::after {
    content: '+';
    margin-left: 10px;
    font: 500 18px var(--mono);
  }
  &[open] summary::after {
    content: '−';
  }
  li {
    padding: 6px 0;
    border-top: 1px solid var(--rule);
    font-size: 15px;
  }
`
export const Lines = styled.ul`
  && li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 10px;
    min-height: 56px;
    border-top: 1px solid var(--rule);
    border-bottom: 1px solid var(--rule);
  }
  li > button {
    white-space: nowrap;
  }
  li span span {
    display: block;
    font-size: 13.5px;
  }
`
