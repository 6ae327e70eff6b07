import styled from 'styled-components'
import { Plain } from '../../../ui/Button'
import type { AskProps } from './props'

/** Answers to tap: one of them, or as many as hold. Tapped again, an answer goes. */
export function Several({ ask, answer }: AskProps) {
  const toggle = (value: string) => {
    const there = ask.values.includes(value)
    const others = ask.many ? ask.values.filter((each) => each !== value) : []
    answer(ask, there ? others : [...others, value])
  }
  return (
    <Group role="group" aria-label={ask.words}>
      <span>{ask.words}</span>
      <div>
        {ask.options.map(({ value, words }) => (
          <Plain key={value} aria-pressed={ask.values.includes(value)} onPress={() => toggle(value)}>
            {words}
          </Plain>
        ))}
      </div>
    </Group>
  )
}

const Group = styled.div`
  > span {
    display: block;
    margin-bottom: 6px;
    color: var(--soft);
    font-size: 13.5px;
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  button {
    font: 500 16px var(--text);
    border-color: var(--rule);
  }
  button[aria-pressed='true'] {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--on-ink);
  }
`
