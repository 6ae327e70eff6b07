import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../../api/client'
import { keys } from '../../../api/keys'
import type { Body } from '../../../api/outbox'
import { Plain } from '../../../ui/Button'
import { Dialog } from '../../../ui/Dialog'
import { Problem, Soft } from '../../../ui/Page'
import { SchoolChoice } from '../../../ui/SchoolChoice'
import type { Bench } from '../log/types'

interface Props {
  bench: Bench
  enter: (body: Body) => void
  onClose: () => void
}

/** Do the rest of this job otherwise: only what still makes a difference, with what it changes said before. */
export function WaysSheet({ bench, enter, onClose }: Props) {
  const schools = useQuery({
    queryKey: [...keys.schoolsOfJob(bench.id), bench.last_seq],
    queryFn: () =>
      unwrap(api.GET('/api/bench/jobs/{job_id}/schools', { params: { path: { job_id: bench.id } } })),
    networkMode: 'always',
    retry: false,
    placeholderData: keepPreviousData, // an entry made before may come in while a choice is being made
  })
  const choose = (way: string, value: string) => {
    enter({ kind: 'school', way, value })
    onClose()
  }
  return (
    <Dialog title="The rest of this job otherwise" open wide onClose={onClose}>
      {schools.error ? (
        <Problem>
          What a change comes to is worked out by the server, which cannot be reached just now.
        </Problem>
      ) : null}
      {schools.data?.length === 0 ? (
        <p>Nothing that is left of this job is done differently anywhere.</p>
      ) : null}
      {schools.data?.map((each) => (
        <School key={each.way} school={each} onChoose={(value) => choose(each.way, value)} />
      ))}
    </Dialog>
  )
}

const listed = (words: string, of: string[]) => (of.length ? `${words} ${of.join(', ')}` : '')

/** What a choice changes for what is left. */
export function changeWords(choice: Schemas['ChoiceLeft']): string {
  const words = [
    listed('brings', choice.adds),
    listed('leaves out', choice.leaves_out),
    listed('changes', choice.alters),
    listed('takes besides', choice.fetch),
  ]
  const said = words.filter(Boolean).join('; ')
  return `${said.charAt(0).toUpperCase()}${said.slice(1)}.`
}

function School({ school, onChoose }: { school: Schemas['SchoolLeftOut']; onChoose: (v: string) => void }) {
  const [value, setValue] = useState(school.now)
  const chosen = school.choices.find((each) => each.value === value)
  return (
    <SchoolChoice school={school} value={value} onChange={setValue}>
      {chosen && value !== school.now ? (
        <Then>
          <Plain onPress={() => onChoose(value)}>From here on: {chosen.words}</Plain>
          <Soft>{changeWords(chosen)}</Soft>
        </Then>
      ) : null}
    </SchoolChoice>
  )
}

const Then = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  margin-top: 10px;
  > span {
    flex: 1;
    min-width: 220px;
    font-size: 14.5px;
  }
`
