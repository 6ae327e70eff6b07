import { useState } from 'react'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../domain/dates'
import { Plain } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'

/** A link just made: shown this once, to copy and send. */
export function MadeLink({ link, words }: { link: Schemas['LinkOut']; words: string }) {
  const [copied, setCopied] = useState(false)
  return (
    <Made role="status">
      <p>
        {link.mailed ? 'It was mailed. ' : ''}
        {words} Good once, until {shortDate(new Date(link.until))}; it is not shown again.
      </p>
      <input
        readOnly
        aria-label="The link"
        value={link.address}
        onFocus={(event) => event.currentTarget.select()}
      />
      {navigator.clipboard ? (
        <Plain onPress={() => void navigator.clipboard.writeText(link.address).then(() => setCopied(true))}>
          {copied ? 'Copied' : 'Copy it'}
        </Plain>
      ) : (
        <Soft>Mark it all and copy it.</Soft>
      )}
      {link.mail ? <Problem>{link.mail}</Problem> : null}
    </Made>
  )
}

const Made = styled.div`
  display: grid;
  justify-items: start;
  gap: 10px;
  padding: 12px 14px;
  background: var(--lifted);
  border-left: 4px solid var(--ink);
  input {
    width: 100%;
    min-height: 44px;
    padding: 6px 8px;
    border: 1px solid var(--rule);
    background: var(--ground);
    font: 400 14px var(--mono);
  }
`
