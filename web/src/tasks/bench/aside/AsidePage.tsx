import { Link } from 'react-router'
import styled from 'styled-components'
import { shortDate } from '../../../domain/dates'
import { Main } from '../../../ui/Button'
import { Head, Num, Page, Problem, Soft } from '../../../ui/Page'
import type { Bench } from '../log/types'
import { Say, Why } from '../parts'
import { useAside } from './useAside'

interface Props {
  bench: Bench
  aside: NonNullable<Bench['aside']>
  mayChange: boolean
}

/** A job that was put aside: by whom, why, and the way back. */
export function AsidePage({ bench, aside, mayChange }: Props) {
  const { take } = useAside(bench.id)
  return (
    <Page>
      <Head>
        <h1>
          <Link to={`/drums/${bench.tag}`}>{bench.name}</Link>
        </h1>
        <Num>{bench.tag}</Num>
        <Soft>
          {bench.title}, begun by {bench.opened_by}
        </Soft>
      </Head>
      <Body>
        <Say>
          {aside.by} put this job aside on {shortDate(new Date(aside.at))}: {aside.because}
        </Say>
        <Why>Nothing of it counts as done. What was entered stays with it.</Why>
        {take.error ? <Problem>{take.error.message}</Problem> : null}
        {mayChange ? (
          <Main onPress={() => take.mutate()} isDisabled={take.isPending}>
            Take it up again
          </Main>
        ) : null}
      </Body>
    </Page>
  )
}

const Body = styled.div`
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 16px;
  max-width: 640px;
  padding: 24px 28px;
  @media (max-width: 700px) {
    padding: 16px;
  }
`
