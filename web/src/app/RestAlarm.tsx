import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import type { Schemas } from '../api/client'
import { Quiet } from '../ui/Button'
import { chime } from '../ui/chime'

type Resting = Pick<Schemas['OwedOut'], 'name' | 'tag' | 'job_id' | 'ready_at'>

/** setTimeout counts no further than this. */
const LONGEST_MS = 2 ** 31 - 1

/** Rests that ended while this page was open, each rung once; those that had ended before are on Today. */
function useRung(items: readonly Resting[]): [Resting[], (job: string) => void] {
  const [opened] = useState(() => Date.now())
  const [heard, setHeard] = useState<readonly string[]>([])
  const [now, setNow] = useState(opened)
  const resting = useMemo(() => items.filter((each) => each.ready_at && each.job_id), [items])
  const at = (each: Resting) => new Date(each.ready_at ?? 0).getTime()
  const next = Math.min(...resting.map(at).filter((ready) => ready > now))
  useEffect(() => {
    if (!Number.isFinite(next)) return
    const timer = setTimeout(
      () => {
        setNow(Date.now())
        chime()
      },
      Math.min(LONGEST_MS, Math.max(0, next - Date.now()) + 50),
    )
    return () => clearTimeout(timer)
  }, [next])
  const rung = resting.filter(
    (each) => at(each) > opened && at(each) <= now && !heard.includes(each.job_id ?? ''),
  )
  return [rung, (job) => setHeard((before) => [...before, job])]
}

/** The device rings when a drum has rested, on whatever page one is; each job has its own clock. */
export function RestAlarm({ items }: { items: readonly Resting[] }) {
  const [rung, silence] = useRung(items)
  if (!rung.length) return null
  return (
    <Notice role="alert">
      {rung.map((each) => (
        <p key={each.job_id}>
          <Link to={`/bench/${each.job_id}`} onClick={() => silence(each.job_id ?? '')}>
            {each.name} has rested
          </Link>
          <Quiet onPress={() => silence(each.job_id ?? '')}>Heard</Quiet>
        </p>
      ))}
    </Notice>
  )
}

const Notice = styled.div`
  position: fixed;
  right: 20px;
  top: 16px;
  z-index: 9;
  max-width: min(420px, calc(100vw - 40px));
  padding: 6px 16px;
  background: var(--lifted);
  border: 1.5px solid var(--ink);
  border-radius: 2px;
  p {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 14px;
  }
  a {
    font: 600 19px var(--slab);
    text-decoration: underline;
  }
`
