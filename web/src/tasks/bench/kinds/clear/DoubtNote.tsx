import styled from 'styled-components'
import { misreadWords } from '../../../../domain/misread'
import { Plain } from '../../../../ui/Button'
import { Note } from '../../parts'
import type { Doubt } from './reading'

const LOWEST_HZ = 20
const HIGHEST_HZ = 2000

/** A reading that cannot be is asked about, not turned upon. */
export function DoubtNote({ doubt, pitch }: { doubt: Doubt; pitch: boolean }) {
  const { of } = doubt
  const mayBe = !pitch || (of.value >= LOWEST_HZ && of.value <= HIGHEST_HZ)
  return (
    <Note role="alert" aria-label="Look at this first" data-testid="doubt">
      <p>
        <b>Rod {of.rod}:</b> {misreadWords(of)}
      </p>
      <Row>
        {of.perhaps === null ? null : (
          <Plain onPress={() => doubt.put(of.perhaps as number)}>{of.perhaps}</Plain>
        )}
        <Plain onPress={doubt.again}>Read again</Plain>
        {mayBe ? <Plain onPress={doubt.isSo}>It is so</Plain> : null}
      </Row>
    </Note>
  )
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-top: 8px;
`
