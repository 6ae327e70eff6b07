import styled from 'styled-components'
import type { ApiError } from '../../api/client'
import { Plain } from '../../ui/Button'
import type { Explained } from './useShelf'

/** A count never goes below nought by itself: it asks what happened. */
export function WhatHappened({ error, onSaid }: { error: ApiError; onSaid: (explained: Explained) => void }) {
  return (
    <Box role="alert">
      <p>{error.body.message}</p>
      <div>
        <Plain onPress={() => onSaid('bought')}>Bought, not entered</Plain>
        <Plain onPress={() => onSaid('miscounted')}>Miscounted</Plain>
      </div>
    </Box>
  )
}

const Box = styled.div`
  display: grid;
  gap: 10px;
  padding: 12px 16px;
  border-left: 4px double var(--ink);
  background: var(--ground);
  p {
    font-weight: 550;
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
`
