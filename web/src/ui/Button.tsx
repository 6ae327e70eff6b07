import { Button as AriaButton, type ButtonProps } from 'react-aria-components'
import styled from 'styled-components'

const Base = styled(AriaButton)`
  display: inline-flex;
  align-items: center;
  gap: 12px;
  min-height: 48px;
  padding: 0 18px;
  border: 1.5px solid var(--ink);
  border-radius: 2px;
  background: transparent;
  color: var(--ink);
  font-family: var(--slab);
  font-weight: 600;
  font-size: 17px;
  cursor: pointer;
  text-align: left;
  &[data-hovered] {
    background: var(--lifted);
  }
  &[data-pressed] {
    background: var(--faint);
  }
  &[data-disabled] {
    border-color: var(--rule);
    color: var(--soft);
    cursor: default;
  }
`

export const Plain = Base

/** The one next thing. */
export const Main = styled(Base)`
  justify-content: space-between;
  background: var(--ink);
  color: var(--on-ink);
  min-height: 64px;
  padding: 0 22px;
  font-size: 21px;
  &[data-hovered] {
    background: color-mix(in srgb, var(--ink) 88%, var(--ground));
  }
  &[data-pressed] {
    background: color-mix(in srgb, var(--ink) 78%, var(--ground));
  }
  &[data-disabled] {
    background: var(--faint);
    border-color: var(--faint);
    color: var(--soft);
  }
`

/** Words with a key beside them. */
export const Quiet = styled(Base)`
  border-color: transparent;
  background: transparent;
  padding: 0 10px;
  font-family: var(--text);
  font-weight: 500;
  font-size: 15.5px;
  gap: 7px;
  &[data-disabled] {
    border-color: transparent;
  }
`

/** A key beside its words; out of sight where keys of one character are switched off, pale while they would be typed. */
export function Key({ children }: { children: string | number }) {
  const cap = String(children)
  return <Cap data-letter={cap.length === 1 ? cap.toLowerCase() : undefined}>{cap}</Cap>
}

const Cap = styled.kbd`
  [data-letters='off'] &[data-letter] {
    display: none;
  }
  [data-typing] &[data-letter],
  [data-typing-notes]
    &:is(
      [data-letter='a'],
      [data-letter='b'],
      [data-letter='c'],
      [data-letter='d'],
      [data-letter='e'],
      [data-letter='f'],
      [data-letter='g'],
      [data-letter='h']
    ) {
    opacity: 0.28;
  }
  font: 500 12px/1 var(--mono);
  padding: 4px 7px;
  border: 1px solid currentColor;
  border-radius: 2px;
  opacity: 0.75;
  @media (max-width: 700px), (hover: none) and (pointer: coarse) {
    display: none;
  }
`

export type { ButtonProps }
