import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { Plain } from '../../ui/Button'
import { SchoolChoice } from '../../ui/SchoolChoice'
import type { Offer } from './useStartJob'

interface Props {
  tag: string
  offer: Offer
  wayOf: (way: string) => string
  onChange: (way: string) => (value: string) => void
  asked: Record<string, string>
}

/** These are asked on the page itself. */
const IN_SIGHT = ['pattern', 'first_head']

/** Where the trade disagrees and it makes a difference to this job: folded away, since the workshop has its ways. */
export function Schools({ tag, offer, wayOf, onChange, asked }: Props) {
  const [open, setOpen] = useState(false)
  const schools = useQuery({
    queryKey: keys.schoolsOfWork(tag, offer.work, offer.part),
    queryFn: () =>
      unwrap(
        api.GET('/api/bench/work/{tag}/{work}/{part}/schools', {
          params: { path: { tag, work: offer.work, part: offer.part } },
        }),
      ),
  })
  const left = (schools.data ?? []).filter((each) => !IN_SIGHT.includes(each.way))
  if (!left.length) return null
  const otherwise = left.filter((each) => asked[each.way] && asked[each.way] !== each.now)
  const words = otherwise.map((each) => each.choices.find(({ value }) => value === asked[each.way])?.words)
  return (
    <section aria-label="Ways of this job">
      <Plain aria-expanded={open} onPress={() => setOpen(!open)}>
        {words.length
          ? `This time otherwise: ${words.join(', ')}`
          : `Workshop’s ways: ${left.length} ${left.length === 1 ? 'matters' : 'matter'} here`}
      </Plain>
      {open ? (
        <List>
          {left.map((each) => (
            <SchoolChoice
              key={each.way}
              school={each}
              value={wayOf(each.way)}
              onChange={onChange(each.way)}
            />
          ))}
        </List>
      ) : null}
    </section>
  )
}

const List = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 420px), 1fr));
  gap: 20px 36px;
  padding-top: 18px;
`
