import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'
import { api, ApiError, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { Empty, Head, Num, Page, Problem, Soft } from '../../ui/Page'
import { useKeys } from '../../ui/useKeys'
import { Waiting } from '../../ui/Waiting'
import { KeepSound } from './KeepSound'
import { OneAfterOther } from './OneAfterOther'
import { playTaps } from './player'
import { Round } from './Round'

type HeardOn = Schemas['TapsOut']
type Tap = Schemas['TapOut']

/** Everything that was heard on a job: each tap to look at, and where its sound was kept to hear again. */
export function HeardPage() {
  const { job = '' } = useParams()
  const session = useSession()
  const heard = useQuery({
    queryKey: keys.heard(job),
    queryFn: () => unwrap(api.GET('/api/hearing/jobs/{job_id}/taps', { params: { path: { job_id: job } } })),
  })
  if (heard.error) return <Problem>{heard.error.message}</Problem>
  if (!heard.data) return <Waiting />
  return <Shown job={job} heard={heard.data} may={mayChange(session.data)} />
}

const nameOf = (tap: Tap | undefined): string => (tap?.rod ? `rod ${tap.rod}` : 'the middle')

/** At most two, the earlier goes when a third is chosen. */
function useChosen() {
  const [chosen, set] = useState<readonly string[]>([])
  const choose = (tap: string) =>
    set((before) =>
      before.includes(tap) ? before.filter((each) => each !== tap) : [...before, tap].slice(-2),
    )
  return { chosen, choose }
}

function Shown({ job, heard, may }: { job: string; heard: HeardOn; may: boolean }) {
  const { chosen, choose } = useChosen()
  const [problem, setProblem] = useState('')
  const rounds = heard.rounds.filter((each) =>
    heard.taps.some((tap) => tap.step === each.step && tap.lap === each.lap),
  )
  const withSound = heard.taps.filter((each) => each.has_sound).length
  const play = (taps: readonly string[]) => {
    setProblem('')
    playTaps(taps).catch((error: unknown) =>
      setProblem(error instanceof ApiError ? error.body.message : 'This browser could not play it.'),
    )
  }
  const both = chosen.length === 2 ? () => play(chosen) : undefined
  useKeys({ p: both, ' ': both })
  return (
    <Page>
      <Head>
        <h1>What was heard</h1>
        <Link to={`/bench/${job}`}>
          {heard.name} <Num>{heard.tag}</Num>
        </Link>
        <Soft>
          {heard.part === 'heads' ? 'both heads' : `${heard.part} head`}, {heard.taps.length}{' '}
          {heard.taps.length === 1 ? 'tap' : 'taps'}, {withSound} with sound
        </Soft>
        {heard.taps.length ? (
          <Away data-end href={`/api/hearing/jobs/${job}/export`} download>
            Export as WAV and JSON
          </Away>
        ) : null}
      </Head>
      <Grid>
        <Side>
          <OneAfterOther
            names={chosen.map((id) => nameOf(heard.taps.find((tap) => tap.id === id)))}
            withSound={withSound}
            onPlay={both}
            problem={problem}
          />
          <KeepSound job={job} may={may} />
        </Side>
        <div>
          {rounds.length ? (
            rounds.map((round) => (
              <Round
                key={`${round.step}:${round.lap}`}
                round={round}
                heard={heard}
                chosen={chosen}
                onChoose={choose}
                onPlay={(tap) => play([tap])}
              />
            ))
          ) : (
            <Empty>
              Nothing was heard on this job yet. On the Bench, choose Listen while the rods are read, or let a
              recording fall on the instruction: WAV, FLAC, AIFF or OGG, up to 64 MB and five minutes.
            </Empty>
          )}
        </div>
      </Grid>
    </Page>
  )
}

const Grid = styled.div`
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  flex: 1;
  > div {
    border-left: 1px solid var(--rule);
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    > div {
      border-left: 0;
      grid-row: 1;
    }
  }
`
const Side = styled.aside`
  display: flex;
  flex-direction: column;
  gap: 30px;
  padding: 22px 28px;
  line-height: 1.45;
  h2 {
    font-size: 19px;
    margin-bottom: 8px;
  }
  section > * + * {
    margin-top: 10px;
  }
  @media (max-width: 1000px) {
    border-top: 1px solid var(--rule);
  }
  @media (max-width: 700px) {
    padding: 16px;
  }
`
const Away = styled.a`
  font-weight: 550;
`
