import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Soft } from '../../ui/Page'
import { fitted } from './SideState'

/** The snare wires that lie on the drum. */
export function WiresState({ wires }: { wires: NonNullable<Schemas['Sheet']['wires']> }) {
  return (
    <Wires>
      <h2>Wires</h2>
      <b>{wires.name}</b>
      <Soft>{fitted(new Date(wires.since), wires.dated, wires.by)}</Soft>
    </Wires>
  )
}

const Wires = styled.div`
  display: flex;
  flex-direction: column;
  gap: 1px;
  padding: 11px 10px 12px 15.5px;
  border-top: 1px solid var(--rule);
  font-size: 15px;
  line-height: 1.4;
  h2 {
    font-size: 18px;
  }
  b {
    font-weight: 600;
  }
`
