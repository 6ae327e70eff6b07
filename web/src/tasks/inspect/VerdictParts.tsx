import styled from 'styled-components'
import { Plain } from '../../ui/Button'
import { Soft } from '../../ui/Page'
import type { Verdict } from './log/fold'

export const PARTS = ['batter', 'resonant', 'wires', 'hardware'] as const
export type Decided = (typeof PARTS)[number]
export const NAMES: Record<Decided, string> = {
  batter: 'Batter',
  resonant: 'Resonant head',
  wires: 'Snare wires',
  hardware: 'Shell and hardware',
}

/** Red is what is owed before the drum goes out, or at once. */
export const isOwed = (stands: string | undefined): boolean =>
  stands === 'replace-now' || stands === 'out-of-service'

interface Props {
  verdict: Verdict
  hasWires: boolean
  /** To decide a part otherwise; none for who only looks on. */
  onOver: ((part: Decided) => void) | null
}

/** The verdict part by part, and who decided otherwise. */
export function VerdictParts({ verdict, hasWires, onOver }: Props) {
  const shown = PARTS.filter((part) => part !== 'wires' || hasWires || verdict.stands['wires'] !== 'nothing')
  return (
    <Parts aria-label="By part">
      {shown.map((part) => (
        <li key={part} data-owed={isOwed(verdict.stands[part]) || undefined}>
          <b>{NAMES[part]}</b>
          <span>
            {verdict.words[part]}
            {verdict.overruled[part] ? (
              <Soft>
                , decided by {verdict.overruled[part].by}: {verdict.overruled[part].reason}
              </Soft>
            ) : null}
          </span>
          {onOver ? <Plain onPress={() => onOver(part)}>Decide otherwise</Plain> : null}
        </li>
      ))}
    </Parts>
  )
}

const Parts = styled.ul`
  margin: 14px 0 8px;
  border-top: 1px solid var(--rule);
  li {
    display: grid;
    grid-template-columns: 200px minmax(0, 1fr) auto;
    align-items: center;
    gap: 4px 14px;
    min-height: 52px;
    border-bottom: 1px solid var(--rule);
  }
  li > b {
    font: 600 17px var(--slab);
  }
  li[data-owed] > span {
    color: var(--red);
    font-weight: 650;
  }
  li > button {
    min-height: 44px;
    border-color: transparent;
    font: 500 15px var(--text);
    padding: 0 8px;
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    li > b {
      grid-column: 1 / -1;
      padding-top: 6px;
    }
  }
`
