import type { ReactNode } from 'react'
import styled from 'styled-components'
import { Mark } from '../../ui/Mark'

/** The page before anybody is in: what this is, and beside it what to do. */
export function Cover({ words, children }: { words?: ReactNode; children: ReactNode }) {
  return (
    <Sheet>
      <section>
        <Mark owed width={92} />
        <h1>Red Tally</h1>
        <p>
          {words ?? 'The bench book for many drums: what is owed, what next, how much, and what happened.'}
        </p>
      </section>
      <section>{children}</section>
    </Sheet>
  )
}

export const CoverForm = styled.form`
  display: flex;
  flex-direction: column;
  gap: 18px;
`

export const CoverTitle = styled.h2`
  font-size: 26px;
`

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
    grid-template-rows: auto 1fr;
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
