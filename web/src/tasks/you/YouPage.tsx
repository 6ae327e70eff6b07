import styled from 'styled-components'
import { useSession } from '../../api/session'
import { Head, Page, Soft } from '../../ui/Page'
import { Waiting } from '../../ui/Waiting'
import { Codes } from './Codes'
import { EmailForm } from './EmailForm'
import { Elsewhere } from './Elsewhere'
import { Passkeys } from './Passkeys'
import { PasswordForm } from './PasswordForm'
import { ThisDevice } from './ThisDevice'
import { useWays } from './useWays'

/** One's own sign-in: password, passkeys, codes, where mail goes, and out everywhere else. */
export function YouPage() {
  const session = useSession().data
  const ways = useWays()
  if (!session?.username) return <Waiting />
  return (
    <Page>
      <Head>
        <h1>Your sign-in</h1>
        <Soft>
          {session.username}; in the history you are {session.shown_name}.
        </Soft>
      </Head>
      <Columns>
        <section aria-label="Password">
          <h2>Password</h2>
          <PasswordForm />
          <Elsewhere />
          {session.mail ? <EmailForm email={session.email} /> : null}
        </section>
        <section aria-label="Beside the password">
          {session.demo ? (
            <>
              <h2>Passkeys and codes</h2>
              <Soft as="p">The demo’s accounts are shared; how they sign in stays.</Soft>
            </>
          ) : ways.data ? (
            <>
              <Passkeys ways={ways.data} />
              <Codes ways={ways.data} />
            </>
          ) : null}
          <ThisDevice />
        </section>
      </Columns>
    </Page>
  )
}

const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  > section {
    padding: 18px 28px 28px;
    min-width: 0;
  }
  > section + section {
    border-left: 1px solid var(--rule);
  }
  h2 {
    font-size: 19px;
    padding-bottom: 6px;
    border-bottom: 1px solid var(--ink);
  }
  h2 + span,
  h2 + p,
  section > p:last-child {
    padding: 10px 0 22px;
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
