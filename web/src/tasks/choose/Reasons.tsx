import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Soft } from '../../ui/Page'
import { Card, Not } from './Answer'

interface Props {
  words: string
  first: boolean
  good: string[]
  bad: string[]
  children?: ReactNode
}

/** One answer: what it is, what speaks for and against it. */
export function Reasons({ words, first, good, bad, children }: Props) {
  return (
    <Card data-first={first || undefined}>
      <h2>{words}</h2>
      {children}
      <h3>For it</h3>
      <ul>
        {good.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
      {bad.length ? (
        <>
          <h3>Against it</h3>
          <ul>
            {bad.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </>
      ) : null}
    </Card>
  )
}

/** What must not go on, and why. */
export function NotThese({ found }: { found: Schemas['NotThis'][] }) {
  if (!found.length) return null
  return (
    <Not>
      <summary>Must not go on, and why</summary>
      <ul>
        {found.map((each) => (
          <li key={each.because + each.words}>
            {each.because} <Soft>{each.words}</Soft>
          </li>
        ))}
      </ul>
    </Not>
  )
}
