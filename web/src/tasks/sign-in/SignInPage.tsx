import { useState } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import type { Session } from '../../api/session'
import type { Schemas } from '../../api/client'
import { Plain } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'
import { Cover } from './Cover'
import { FirstPage } from './FirstPage'
import { SignInForm } from './SignInForm'

interface Props {
  session: Session | undefined
  unreachable: boolean
}

/** Nobody is in: sign in, or begin the first workshop where there is none. */
export function SignInPage({ session, unreachable }: Props) {
  const [picked, setPicked] = useState<Schemas['DemoAccount'] | null>(null)
  const accounts = session?.demo_accounts ?? []
  const first = session?.first_run ?? false
  const [beginning, setBeginning] = useState(false)
  if (first && (beginning || !accounts.length))
    return <FirstPage onBack={accounts.length ? () => setBeginning(false) : null} />
  return (
    <Cover>
      {unreachable ? (
        <Problem>
          The record book cannot be reached just now. Entries on this device are kept. It is asked again by
          itself.
        </Problem>
      ) : null}
      <SignInForm key={picked?.username ?? ''} start={picked} />
      {accounts.length ? (
        <Demo>
          <h2>Demo accounts</h2>
          {accounts.map((each) => (
            <Account key={each.username} onPress={() => setPicked(each)}>
              <b>{each.username}</b>
              <Soft>
                {each.shown_name}, {each.role}
              </Soft>
              <code>{each.password}</code>
            </Account>
          ))}
        </Demo>
      ) : null}
      {first ? <Plain onPress={() => setBeginning(true)}>Begin a workshop of your own</Plain> : null}
    </Cover>
  )
}

const Demo = styled.div`
  margin-top: 10px;
  h2 {
    font-size: 16px;
    color: var(--soft);
    padding-bottom: 8px;
  }
`
const Account = styled(AriaButton)`
  display: grid;
  grid-template-columns: 64px 1fr auto;
  align-items: baseline;
  width: 100%;
  min-height: 48px;
  padding: 12px 4px;
  border: 0;
  border-top: 1px solid var(--rule);
  background: transparent;
  text-align: left;
  cursor: pointer;
  b {
    font-family: var(--slab);
  }
  code {
    font: 400 13px var(--mono);
    color: var(--soft);
  }
  &[data-hovered] {
    background: var(--lifted);
  }
`
