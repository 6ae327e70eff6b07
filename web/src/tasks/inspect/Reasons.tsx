import styled from 'styled-components'
import { Soft } from '../../ui/Page'
import type { Verdict } from './log/fold'

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)

/** What a verdict rests on, rule by rule, and what would change it. */
export function Reasons({ verdict }: { verdict: Verdict }) {
  return (
    <Why>
      {verdict.because.map((each) => (
        <li key={each.rule}>{each.words}</li>
      ))}
      {verdict.would_change.map((each) => (
        <li key={each.part + each.if_words}>
          {sentence(each.if_words)}: {each.part}, {each.verdict}.
        </li>
      ))}
      <li>
        <Soft>Rules are common practice. Makers’ instructions and qualified people come first.</Soft>
      </li>
    </Why>
  )
}

const Why = styled.ul`
  font-size: 15.5px;
  li {
    padding: 6px 0;
    border-bottom: 1px solid var(--rule);
  }
`
