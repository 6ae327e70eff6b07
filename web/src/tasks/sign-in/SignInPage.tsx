import { useState } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { Mark } from '../../ui/Mark'
import { Problem, Soft } from '../../ui/Page'
import { SignInForm } from './SignInForm'

interface Props {
  accounts: Schemas['DemoAccount'][]
  unreachable: boolean
}

export function SignInPage({ accounts, unreachable }: Props) {
  const [picked, setPicked] = useState<Schemas['DemoAccount'] | null>(null)
  return (
    <Sheet>
      <section>
        <Mark owed width={92} />
        <h1>Red Tally</h1>
        <p>The bench book for many drums: what is owed, what next, how much, and what happened.</p>
      </section>
      <section>
        {unreachable ? (
          <Problem>
            The record book cannot be reached just now. Entries on this device are kept. Reload in a moment.
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
      </section>
    </Sheet>
  )
}

const Sheet = styled.main`
  min-height: 100dvh;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  > section {
    padding: 8vh clamp(20px, 6vw, 96px);
    display: flex;
    flex-direction: column;
    justify-content: center;
    gap: 22px;
  }
  > section:first-child {
    border-right: 1px solid var(--rule);
    h1 {
      font-size: clamp(40px, 5.4vw, 76px);
    }
    p {
      font: 500 clamp(18px, 1.7vw, 23px) / 1.4 var(--slab);
      max-width: 24ch;
      color: var(--soft);
    }
  }
  @media (max-width: 800px) {
    grid-template-columns: 1fr;
    > section {
      padding: 28px 20px;
      justify-content: start;
    }
    > section:first-child {
      border: 0;
      border-bottom: 1px solid var(--rule);
    }
  }
`
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
