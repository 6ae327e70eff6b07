import { useMutation } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { daysBetween, shortDate } from '../../domain/dates'
import { Key, Main, Quiet } from '../../ui/Button'
import { Owed, Problem, Soft } from '../../ui/Page'
import { useStockChanged, type Shelf } from './useShelf'

type Job = Schemas['ReadyJob']

function until(day: Date): string {
  const days = daysBetween(new Date(), day)
  return days <= 1 ? 'Until tomorrow' : `Until ${shortDate(day)}`
}

const WORDS: Record<Job['state'], string> = {
  promised: 'promised',
  free: 'free, promise it',
  short: 'short',
  nothing: 'nothing needed',
}

const pieces = (job: Job): string =>
  job.pieces
    .map((piece) => `${piece.what}${piece.place && piece.state !== 'short' ? `, ${piece.place}` : ''}`)
    .join('; ')

/** Whether the next jobs can start: what each needs, and where that lies. */
export function JobsColumn({ shelf, mayChange }: { shelf: Shelf; mayChange: boolean }) {
  const navigate = useNavigate()
  const changed = useStockChanged()
  const promise = useMutation({
    mutationFn: (planned: string) =>
      unwrap(api.POST('/api/shelf/jobs/{planned}/promise', { params: { path: { planned } } })),
    onSettled: changed,
  })
  return (
    <Column aria-label="The next jobs">
      <h2>{until(new Date(shelf.by))}</h2>
      <Soft>{shelf.jobs_words}</Soft>
      {promise.error ? <Problem>{promise.error.message}</Problem> : null}
      <ul>
        {shelf.jobs.map((job) => (
          <li key={job.id}>
            <Link to={`/drums/${job.tag}/start?work=${job.work}&part=${job.part}`}>
              <b>{job.name}</b>
            </Link>
            {job.state === 'short' ? (
              <Owed>{WORDS.short}</Owed>
            ) : job.state === 'free' && mayChange ? (
              <Quiet isDisabled={promise.isPending} onPress={() => promise.mutate(job.id)}>
                <u>{WORDS.free}</u>
              </Quiet>
            ) : (
              <span data-soft={job.state === 'nothing' || undefined}>
                {job.state === 'free' ? 'free' : WORDS[job.state]}
              </span>
            )}
            <small>{pieces(job) || job.title}</small>
          </li>
        ))}
      </ul>
      <div>
        {shelf.lent ? (
          <Link to="/shelf/lent">
            <Owed>{shelf.lent} lent and not back</Owed>
          </Link>
        ) : (
          <Link to="/shelf/lent">
            <u>Lend a part</u>
          </Link>
        )}
        {shelf.going_back ? (
          <Link to="/shelf/buying">
            <u>{shelf.going_back} to send back</u>
          </Link>
        ) : null}
      </div>
      <Main onPress={() => void navigate('/shelf/buying')}>
        <span>
          {shelf.to_buy
            ? `Buying list, ${shelf.to_buy} ${shelf.to_buy === 1 ? 'line' : 'lines'}`
            : 'Nothing to buy'}
        </span>
        <Key>O</Key>
      </Main>
    </Column>
  )
}

const Column = styled.section`
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: 16px 28px 24px;
  border-left: 1px solid var(--rule);
  h2 {
    font-size: 19px;
  }
  ul {
    margin-top: 8px;
    border-top: 1px solid var(--ink);
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
    gap: 0 12px;
    padding: 7px 0 8px;
    border-bottom: 1px solid var(--rule);
    font-size: 15px;
  }
  li b {
    font: 600 17px var(--slab);
  }
  li button {
    min-height: 30px;
    padding: 0;
    font-size: 14.5px;
  }
  li > span {
    font-weight: 650;
  }
  [data-soft] {
    color: var(--soft);
    font-weight: 400;
  }
  small {
    grid-column: 1 / -1;
    font-size: 13.5px;
    color: var(--soft);
  }
  > div {
    display: flex;
    flex-direction: column;
    padding: 8px 0;
  }
  > div a {
    min-height: 44px;
    display: flex;
    align-items: center;
    font-size: 15px;
  }
  > button {
    margin-top: auto;
    position: sticky;
    bottom: 20px;
  }
  @media (max-width: 1000px) {
    border-left: 0;
    border-bottom: 1px solid var(--rule);
    padding: 12px 28px 14px;
    > button {
      position: static;
    }
  }
  @media (max-width: 700px) {
    padding: 12px 16px 14px;
  }
`
