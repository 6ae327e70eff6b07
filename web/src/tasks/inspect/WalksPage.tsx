import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { Empty, Head, Page, Problem, Soft } from '../../ui/Page'
import { BeginWalk } from './BeginWalk'
import { WalkLines } from './WalkLines'

/** Look at one drum, or walk along a shelf; go on with a walk that was left. */
export function WalksPage() {
  const session = useSession()
  const walks = useQuery({ queryKey: keys.walks, queryFn: () => unwrap(api.GET('/api/inspect/walks')) })
  const of = (state: string) => walks.data?.filter((each) => each.state === state) ?? []
  return (
    <Page>
      <Head>
        <h1>Inspect</h1>
        <Soft>Look, tick, and know what each drum needs.</Soft>
        <Beside data-end>
          <Link to="/inspect/lives">
            <u>How long heads last</u>
          </Link>
          <Link to="/inspect/rules">
            <u>The rules</u>
          </Link>
        </Beside>
      </Head>
      {mayChange(session.data) ? <BeginWalk /> : null}
      {walks.error ? <Problem>{walks.error.message}</Problem> : null}
      {walks.data && !walks.data.length ? (
        <Empty>
          No walk yet. Open a drum by its tag, or walk along a whole shelf: twenty seconds a drum.
        </Empty>
      ) : null}
      <WalkLines title="Not over yet" walks={of('open')} />
      <WalkLines title="Done" walks={of('done')} />
    </Page>
  )
}

const Beside = styled.nav`
  display: flex;
  gap: 22px;
`
