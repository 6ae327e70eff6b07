import styled from 'styled-components'

/** Cautions stand before the step, short, in ink: danger is not debt. */
export function Cautions({ of }: { of: readonly string[] }) {
  return of.length ? (
    <Warn aria-label="Cautions">
      {of.map((each) => (
        <li key={each}>{each}</li>
      ))}
    </Warn>
  ) : null
}

const Warn = styled.ul`
  border-left: 4px double var(--ink);
  background: var(--lifted);
  padding: 8px 14px;
  font-size: 14.5px;
  line-height: 1.35;
  li + li {
    margin-top: 6px;
  }
`

export const Panel = styled.section`
  grid-area: instruction;
  display: flex;
  flex-direction: column;
  gap: 14px;
  padding: 20px 28px 8px;
  min-width: 0;
  min-height: 0;
  overflow: auto;
  @media (max-height: 860px) and (min-width: 1001px) {
    gap: 9px;
    padding-top: 14px;
  }
  @media (max-width: 1000px) {
    overflow: visible;
  }
  @media (max-width: 700px) {
    padding: 12px 16px 6px;
    gap: 10px;
  }
  @media (max-height: 520px) {
    padding-top: 6px;
    gap: 6px;
  }
`
export const Say = styled.h2`
  font: 600 24px/1.3 var(--slab);
  letter-spacing: -0.01em;
  text-wrap: pretty;
  @media (max-width: 700px) {
    font-size: 20px;
  }
`
export const Label = styled.p`
  color: var(--soft);
  font-size: 15px;
`
export const Big = styled.p`
  font: 650 104px/0.95 var(--slab);
  letter-spacing: -0.03em;
  @media (max-height: 860px) and (min-width: 1001px) {
    font-size: 84px;
  }
  @media (max-width: 700px) {
    font-size: 76px;
  }
  @media (max-height: 520px) {
    font-size: 56px;
  }
`
/** As large as the number it stands in for. */
export const Amid = styled(Big)`
  font-size: 60px;
  line-height: 1.6;
`
/** Something to look at before going on. */
export const Note = styled.div`
  border-left: 4px double var(--ink);
  background: var(--lifted);
  padding: 8px 14px;
  font-size: 15px;
  line-height: 1.4;
  p + p {
    margin-top: 6px;
  }
`
export const Amount = styled.p`
  font: 650 46px/1.05 var(--slab);
  letter-spacing: -0.02em;
  color: var(--red);
  @media (max-height: 860px) and (min-width: 1001px) {
    font-size: 40px;
  }
  @media (max-width: 700px) {
    font-size: 34px;
  }
`
export const Why = styled.p`
  font-size: 16.5px;
  line-height: 1.42;
  max-width: 46ch;
  @media (max-width: 700px) {
    font-size: 15.5px;
  }
`
/** What goes wrong without this step, one press away. */
export function Because({ of }: { of: string }) {
  return of ? (
    <Reason>
      <summary>Why?</summary>
      {of}
    </Reason>
  ) : null
}

const Reason = styled.details`
  font-size: 15.5px;
  line-height: 1.42;
  max-width: 46ch;
  summary {
    width: max-content;
    padding: 11px 14px 11px 0;
    margin: -8px 0;
    cursor: pointer;
    color: var(--soft);
    text-decoration: underline dotted;
    text-underline-offset: 4px;
    list-style: none;
  }
  summary::-webkit-details-marker {
    display: none;
  }
  &[open] summary {
    color: var(--ink);
    text-decoration: none;
    font-weight: 600;
  }
`
export const Points = styled.ul`
  li {
    padding: 8px 0 8px 22px;
    border-top: 1px solid var(--rule);
    position: relative;
    font-size: 15.5px;
    line-height: 1.35;
  }
  li::before {
    content: '';
    position: absolute;
    left: 5px;
    top: 12px;
    width: 2.5px;
    height: 14px;
    background: var(--ink);
    transform: rotate(5deg);
  }
`
/** What was worked out for this step. */
export const Told = styled.p`
  padding: 10px 14px;
  background: var(--lifted);
  border-left: 4px solid var(--ink);
  font: 600 18px/1.35 var(--slab);
`
