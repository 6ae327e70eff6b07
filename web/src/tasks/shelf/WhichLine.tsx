import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { Plain, Quiet } from '../../ui/Button'
import { Num, Problem } from '../../ui/Page'
import { Select } from '../../ui/Select'
import { useStock } from './useShelf'

interface Props {
  code: string
  onKnown: (line: number) => void
  onClose: () => void
}

/** A label nobody has told yet: of which line is it? Said once, it is known from then on. */
export function WhichLine({ code, onKnown, onClose }: Props) {
  const [line, setLine] = useState('')
  const lines = useStock().data?.lines ?? []
  const know = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/shelf/lines/{line}/codes', {
          params: { path: { line: Number(line) } },
          body: { code },
        }),
      ),
    onSuccess: () => onKnown(Number(line)),
  })
  return (
    <Box role="group" aria-label="An unknown label">
      <p>
        Nobody said yet what <Num>{code}</Num> is. Of which line is it?
      </p>
      <Select
        label="Line"
        hideLabel
        value={line}
        onChange={setLine}
        options={[
          ['', 'choose'],
          ...lines.map((row) => [String(row.id), `${row.what}${row.size ? `, ${row.size}` : ''}`] as const),
        ]}
      />
      {know.error ? <Problem>{know.error.message}</Problem> : null}
      <div>
        <Plain isDisabled={!line || know.isPending} onPress={() => know.mutate()}>
          It is this
        </Plain>
        <Quiet onPress={onClose}>Not ours</Quiet>
      </div>
    </Box>
  )
}

const Box = styled.div`
  display: grid;
  gap: 8px;
  width: min(520px, 100%);
  padding: 12px 16px;
  border-left: 4px double var(--ink);
  background: var(--lifted);
  > div {
    display: flex;
    gap: 8px;
  }
`
