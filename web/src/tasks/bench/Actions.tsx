import styled from 'styled-components'
import { Key, Main, Quiet } from '../../ui/Button'

export interface Act {
  words: string
  key: string
  run: () => void
  off?: boolean
}

interface Props {
  main: Act | null
  quiet: Act[]
}

/** Always in the same place: the quiet ways out, and the one next thing. */
export function Actions({ main, quiet }: Props) {
  return (
    <Bar>
      <div>
        {quiet.map((act) => (
          <Quiet key={act.words} onPress={act.run} isDisabled={act.off ?? false}>
            {act.words} <Key>{act.key}</Key>
          </Quiet>
        ))}
      </div>
      {main ? (
        <Main onPress={main.run} isDisabled={main.off ?? false} data-testid="main-action">
          {main.words} <Key>{main.key}</Key>
        </Main>
      ) : null}
    </Bar>
  )
}

const Bar = styled.div`
  grid-area: actions;
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 8px 28px 22px;
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 4px;
    margin-left: -10px;
  }
  > button {
    width: 100%;
    min-height: 84px;
    font-size: 24px;
  }
  @media (max-height: 860px) and (min-width: 1001px) {
    padding: 4px 28px 14px;
    gap: 4px;
    > div {
      gap: 0 4px;
    }
    > button {
      min-height: 68px;
    }
  }
  @media (max-width: 1000px) {
    position: sticky;
    bottom: var(--above-rail);
    z-index: 2;
    background: var(--ground);
    border-top: 1px solid var(--rule);
    padding: 6px 28px 14px;
  }
  @media (max-width: 700px) {
    padding: 2px 16px 8px;
    > button {
      min-height: 64px;
      font-size: 20px;
    }
  }
  /* A phone on its side, or everything twice as large: one line, so that the instruction stays in sight. */
  @media (max-height: 520px) {
    flex-direction: row-reverse;
    align-items: center;
    padding: 2px 16px;
    > div {
      flex: 1 1 0;
      flex-wrap: nowrap;
      overflow-x: auto;
      white-space: nowrap;
    }
    > button {
      width: auto;
      min-height: 48px;
      padding: 0 16px;
      font-size: 17px;
    }
  }
`
