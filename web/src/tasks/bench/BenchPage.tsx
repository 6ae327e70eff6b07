import { useParams } from 'react-router'
import { mayChange, useSession } from '../../api/session'
import { Problem } from '../../ui/Page'
import { Waiting } from '../../ui/Waiting'
import { AsidePage } from './aside/AsidePage'
import { Board } from './Board'
import { useBench } from './useBench'

export function BenchPage() {
  const { job = '' } = useParams()
  return <Job key={job} job={job} />
}

function Job({ job }: { job: string }) {
  const session = useSession()
  const { bench, enter, refused, waiting, error } = useBench(job)
  if (error) return <Problem>{error.message}</Problem>
  if (!bench) return <Waiting />
  if (bench.aside) return <AsidePage bench={bench} aside={bench.aside} mayChange={mayChange(session.data)} />
  return (
    <Board
      bench={bench}
      enter={(body) => void enter(body)}
      refused={refused}
      waiting={waiting}
      mayChange={mayChange(session.data)}
      checkDays={session.data?.workshop?.check_after_days ?? 2}
    />
  )
}
