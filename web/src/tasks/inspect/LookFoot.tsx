import styled from 'styled-components'
import { Key, Main, Plain, Quiet } from '../../ui/Button'
import type { LookActs } from './useLookActs'

interface Props {
  acts: LookActs
  goesOut: boolean
  /** Whether anything was said of this drum. */
  said: boolean
  last: boolean
  withPhoto: boolean
}

/** The one next thing under the thumb; the quiet acts beside it. */
export function LookFoot({ acts, goesOut, said, last, withPhoto }: Props) {
  return (
    <Foot>
      <Quiets>
        <Quiet isDisabled={!acts.undo} onPress={() => acts.undo?.()}>
          Undo <Key>U</Key>
        </Quiet>
        <Quiet aria-pressed={goesOut} onPress={() => acts.out?.()}>
          {goesOut ? 'It goes out ✓' : 'It goes out'} <Key>G</Key>
        </Quiet>
        <Quiet onPress={() => acts.notHere?.()}>
          Not here <Key>H</Key>
        </Quiet>
        {withPhoto ? (
          <Quiet onPress={acts.photo}>
            Photo <Key>P</Key>
          </Quiet>
        ) : null}
      </Quiets>
      {acts.again ? (
        <Plain onPress={acts.again}>
          As last time <Key>R</Key>
        </Plain>
      ) : null}
      <Main onPress={() => acts.done?.()}>
        {said ? (last ? 'Done' : 'Next drum') : 'Nothing found'} <Key>space</Key>
      </Main>
    </Foot>
  )
}

const Foot = styled.footer`
  position: sticky;
  bottom: var(--above-rail);
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 12px 28px;
  background: var(--ground);
  border-top: 1px solid var(--rule);
  > button:last-child {
    min-width: 300px;
  }
  @media (max-width: 700px) {
    flex-wrap: wrap;
    padding: 2px 16px 8px;
    gap: 2px 8px;
    > button {
      min-height: 60px;
    }
    > button:last-child {
      flex: 1;
      min-width: 0;
    }
  }
`
const Quiets = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  margin-right: auto;
  @media (max-width: 700px) {
    flex: 1 0 100%;
    flex-wrap: nowrap;
    justify-content: space-between;
    > button {
      padding: 0 4px;
      white-space: nowrap;
      min-height: 44px;
    }
  }
  [aria-pressed='true'] {
    font-weight: 650;
  }
`
