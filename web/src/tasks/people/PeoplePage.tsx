import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { Head, Page, Problem, Soft } from '../../ui/Page'
import { Waiting } from '../../ui/Waiting'
import { Invitations } from './Invitations'
import { InviteForm } from './InviteForm'
import { OutAndIn } from './OutAndIn'
import { PersonRow } from './PersonRow'
import { RoomTaken } from './RoomTaken'
import { TheWorkshop } from './TheWorkshop'

/** Who works here: roles, invitations, new passwords; and what is the owner's to do with the workshop. */
export function PeoplePage() {
  const queries = useQueryClient()
  const found = useQuery({ queryKey: keys.people, queryFn: () => unwrap(api.GET('/api/people')) })
  const changed = () => queries.invalidateQueries({ queryKey: keys.people })
  if (found.error) return <Problem>{found.error.message}</Problem>
  if (!found.data) return <Waiting />
  const { people, invitations, demo } = found.data
  return (
    <Page>
      <Head>
        <h1>People</h1>
        <Soft>
          Owners do everything; technicians work; viewers look. What somebody did keeps their name, whatever
          becomes of them.
        </Soft>
        <Link to="/changes" data-end>
          <u>Who changed what</u>
        </Link>
      </Head>
      <Columns>
        <section aria-label="Who works here">
          <h2>Who works here</h2>
          <ul>
            {people.map((each) => (
              <PersonRow key={each.id} person={each} fixed={demo} onChanged={changed} />
            ))}
          </ul>
          {demo ? <Note>The demo’s people are everybody’s and stay as they are.</Note> : null}
        </section>
        <section aria-label="Invite">
          {demo ? null : (
            <>
              <h2>Invite somebody</h2>
              <InviteForm mail={found.data.mail} onMade={changed} />
              <Invitations invitations={invitations} onChanged={changed} />
            </>
          )}
          <TheWorkshop demo={demo} demoHere={found.data.demo_here} onChanged={changed} />
          <OutAndIn demo={demo} />
          <RoomTaken />
        </section>
      </Columns>
    </Page>
  )
}

const Note = styled(Soft).attrs({ as: 'p' })`
  padding: 10px 0;
`
const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(300px, 1fr);
  h2 {
    font-size: 19px;
    padding-bottom: 6px;
    border-bottom: 1px solid var(--ink);
  }
  > section {
    padding: 18px 28px 28px;
    min-width: 0;
  }
  > section + section {
    border-left: 1px solid var(--rule);
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    > section + section {
      border-left: 0;
      padding-top: 0;
    }
  }
  @media (max-width: 700px) {
    > section {
      padding: 14px 16px;
    }
  }
`
