import type { ReactNode } from 'react'
import styled from 'styled-components'

/** Fields that belong together, under one heading. */
export function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Set>
      <legend>{title}</legend>
      <div>{children}</div>
    </Set>
  )
}

const Set = styled.fieldset`
  border: 0;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--rule);
  legend {
    font: 600 17px var(--slab);
    padding-right: 14px;
  }
  > div {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(156px, 1fr));
    gap: 14px 28px;
    padding-top: 6px;
  }
`
