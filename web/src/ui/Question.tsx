import { useEffect, useState, type RefObject } from 'react'
import styled from 'styled-components'
import { unlikely, type Likely, type Unlikely } from '../domain/likely'
import { Plain } from './Button'

/**
 * What is written in a field can hardly be: it is asked about once the field is left. Its form is not sent before the question is answered,
 * as the browser’s own checks would have it. What stood there from the start is not asked about.
 */
export function useDoubt(
  field: RefObject<HTMLElement | null>,
  typed: string,
  likely: Likely | null | undefined,
): { doubt: Unlikely | null; onBlur: () => void; onSo: () => void } {
  const [sure, setSure] = useState(typed.trim())
  const [left, setLeft] = useState('')
  const written = typed.trim()
  const found = likely && written !== sure ? unlikely(written, likely) : null
  const open = found !== null
  useEffect(() => {
    const form = field.current?.closest('form')
    if (!open || !form) return
    const hold = (event: Event) => {
      event.preventDefault()
      event.stopImmediatePropagation()
      setLeft(written)
      field.current?.querySelector('input')?.focus()
    }
    form.addEventListener('submit', hold, true)
    return () => form.removeEventListener('submit', hold, true)
  }, [open, written, field])
  return {
    doubt: left === written ? found : null,
    onSo: () => setSure(written),
    onBlur: () => setLeft(written),
  }
}

interface Props {
  doubt: Unlikely
  onPut: (typed: string) => void
  onSo: () => void
}

/** '140? A snare is usually 10 to 16 in across. [14] [It is so]' */
export function Question({ doubt, onPut, onSo }: Props) {
  return (
    <Asked role="alert" data-testid="doubt">
      <p>{doubt.words}</p>
      {doubt.perhaps === null ? null : (
        <Plain onPress={() => onPut(doubt.perhaps as string)}>{doubt.perhaps}</Plain>
      )}
      <Plain onPress={onSo}>It is so</Plain>
    </Asked>
  )
}

const Asked = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 6px 0 6px 12px;
  border-left: 4px double var(--ink);
  font-size: 14.5px;
  p {
    flex: 1 0 100%;
  }
`
