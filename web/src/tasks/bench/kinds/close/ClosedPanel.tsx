import { Link } from 'react-router'
import type { Bench } from '../../log/types'
import { Panel, Say, Why } from '../../parts'

export function ClosedPanel({ bench }: { bench: Bench }) {
  return (
    <Panel aria-live="polite">
      <Say>Closed. It is in {bench.name}’s history.</Say>
      <Why>
        <Link to={`/drums/${bench.tag}`}>
          <u>See the drum</u>
        </Link>
      </Why>
    </Panel>
  )
}
