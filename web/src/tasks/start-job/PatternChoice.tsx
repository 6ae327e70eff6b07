import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { Choice } from '../../ui/Choice'
import { Num, Soft } from '../../ui/Page'

type Pattern = Schemas['WorkshopOut']['pattern']
const PATTERNS: [Pattern, string][] = [
  ['star', 'star'],
  ['neighbour-star', 'neighbour star'],
  ['plus-cross', 'plus, then cross'],
  ['every-third', 'every third rod'],
  ['every-second', 'every second rod'],
]

interface Props {
  rods: number
  lost: readonly number[]
  value: string
  onChange: (value: string) => void
}

/** The tightening order, with the order itself and what it does on this head. */
export function PatternChoice({ rods, lost, value, onChange }: Props) {
  const gone = lost.join(',')
  const patterns = useQuery({
    queryKey: keys.patterns(rods, gone),
    queryFn: () => unwrap(api.GET('/api/workshop/patterns', { params: { query: { rods, lost: gone } } })),
    enabled: rods > 0,
    staleTime: Infinity,
  })
  const chosen = patterns.data?.find((each) => each.pattern === value)
  return (
    <div>
      <Choice<string>
        label="Order of the rods"
        value={value}
        onChange={onChange}
        options={PATTERNS.map(([pattern, words]) => {
          const found = patterns.data?.find((each) => each.pattern === pattern)
          const note = found?.recommended
            ? 'keeps this hoop flattest'
            : found && !found.reaches_all
              ? 'in shifted laps'
              : ''
          return { value: pattern, words, ...(note ? { note } : {}) }
        })}
      />
      {chosen ? (
        <Order>
          <Num>{chosen.order.join('  ')}</Num>
          <Soft>
            hoop pulled over by {chosen.tilt.toFixed(1)}, out of flat by {chosen.saddle.toFixed(1)}, where one
            rod alone is 1. {chosen.note}
          </Soft>
        </Order>
      ) : null}
    </div>
  )
}

const Order = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  padding-top: 8px;
  font-size: 14.5px;
  white-space: pre-wrap;
`
