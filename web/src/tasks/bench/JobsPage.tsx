import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { span } from '../../domain/dates'
import { Empty, Head, Num, Page, Problem, Soft } from '../../ui/Page'

const KINDS = new Set(['rested', 'in-hand', 'resting'])

/** Every job in hand, to go on with. */
export function JobsPage() {
  const today = useQuery({ queryKey: keys.today, queryFn: () => unwrap(api.GET('/api/today')) })
  const jobs = (today.data?.items ?? []).filter((item) => KINDS.has(item.kind))
  return (
    <Page>
      <Head>
        <h1>Bench</h1>
        <Soft>{today.data ? `${jobs.length} in hand` : ''}</Soft>
      </Head>
      {today.error ? <Problem>{today.error.message}</Problem> : null}
      {today.data && !jobs.length ? (
        <Empty>
          The bench is free. Open a drum and start a job from its sheet, or take what is owed from{' '}
          <Link to="/">
            <u>Today</u>
          </Link>
          .
        </Empty>
      ) : null}
      <List>
        {jobs.map((job) => (
          <li key={job.job_id}>
            <Link to={`/bench/${job.job_id}`}>
              <h2>{job.name}</h2>
              <Num>{job.tag}</Num>
              <Soft>{job.kind_words}</Soft>
              <span>{job.reason}</span>
              <b data-owed={job.owed_now || undefined}>
                {job.kind === 'resting' ? `${span(job.minutes_left ?? 0)} left` : job.action}
              </b>
            </Link>
          </li>
        ))}
      </List>
    </Page>
  )
}

const List = styled.ul`
  li {
    border-bottom: 1px solid var(--rule);
  }
  a {
    display: grid;
    grid-template-columns: 150px 90px 120px minmax(0, 1fr) auto;
    align-items: center;
    gap: 4px 16px;
    min-height: 76px;
    padding: 10px 28px;
    outline-offset: -3px;
  }
  a:hover {
    background: var(--lifted);
  }
  h2 {
    font-size: 21px;
  }
  b {
    font-weight: 650;
  }
  b[data-owed] {
    color: var(--red);
  }
  @media (max-width: 700px) {
    a {
      grid-template-columns: minmax(0, 1fr) auto;
      padding: 10px 16px;
    }
    a > span:nth-child(3) {
      display: none;
    }
    a > span {
      grid-column: 1;
    }
    b {
      grid-column: 2;
      grid-row: 1;
    }
  }
`
