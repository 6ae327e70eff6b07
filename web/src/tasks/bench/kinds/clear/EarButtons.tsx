import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'

/** From low to high, as the keys 1 to 5 lie; 0 where the ear cannot tell. */
export const JUDGEMENTS = [
  ['much-lower', 'Much lower', '1'],
  ['lower', 'Lower', '2'],
  ['level', 'Level', '3'],
  ['higher', 'Higher', '4'],
  ['much-higher', 'Much higher', '5'],
  ['cant-tell', 'Can’t tell', '0'],
] as const

export type Judgement = (typeof JUDGEMENTS)[number][0]

/** How one rod sounds beside another: buttons big enough for an elbow. */
export function EarButtons({
  about,
  chosen,
  onJudge,
}: {
  about: string
  chosen?: string
  onJudge: (judged: Judgement) => void
}) {
  return (
    <Keys role="group" aria-label={about}>
      {JUDGEMENTS.map(([value, words, key]) => (
        <Judge key={value} data-value={value} aria-pressed={chosen === value} onPress={() => onJudge(value)}>
          <Bars value={value} />
          {words}
          <kbd>{key}</kbd>
        </Judge>
      ))}
    </Keys>
  )
}

const TILT: Record<Judgement, number> = {
  'much-lower': 12,
  lower: 6,
  level: 0,
  higher: -6,
  'much-higher': -12,
  'cant-tell': 0,
}

/** The rod compared with, then this one: as far below or above as it sounds. */
function Bars({ value }: { value: Judgement }) {
  return (
    <svg viewBox="-24 -18 48 36" width={40} height={26} aria-hidden>
      <path d="M-20 0 H-3" />
      {value === 'cant-tell' ? (
        <path d="M3 0 H20" strokeDasharray="2 5" />
      ) : (
        <path d={`M3 ${TILT[value]} H20`} />
      )}
    </svg>
  )
}

const Keys = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px;
`
const Judge = styled(AriaButton)`
  position: relative;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 2px;
  min-height: 68px;
  padding: 6px 4px;
  border: 1.5px solid var(--ink);
  border-radius: 2px;
  background: transparent;
  color: var(--ink);
  font: 600 16.5px/1.2 var(--slab);
  cursor: pointer;
  svg {
    fill: none;
    stroke: currentColor;
    stroke-width: 4;
  }
  kbd {
    position: absolute;
    right: 6px;
    top: 5px;
    font: 500 11px/1 var(--mono);
    opacity: 0.7;
  }
  &[data-value='cant-tell'] {
    border-style: dashed;
  }
  &[data-hovered] {
    background: var(--lifted);
  }
  &[aria-pressed='true'],
  &[data-pressed] {
    background: var(--ink);
    color: var(--on-ink);
  }
  @media (max-width: 700px) {
    min-height: 70px;
    font-size: 15px;
  }
`
