import { useMutation, useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, ApiError, unwrap } from '../../api/client'
import { keys } from '../../api/keys'
import { startWalk, type WalkAsked } from '../../api/walks'
import { newId } from '../../domain/ids'
import { Key, Main, Plain } from '../../ui/Button'
import { Problem } from '../../ui/Page'
import { Select } from '../../ui/Select'
import { useKeys } from '../../ui/useKeys'
import { FindDrum } from './FindDrum'

const NOTHING = { kind: '', place: '', kit: '' }

function useStart() {
  const navigate = useNavigate()
  const id = useRef(newId())
  return useMutation({
    mutationFn: (asked: Partial<WalkAsked>) => startWalk(asked, id.current),
    onSuccess: (walk) => void navigate(`/inspect/${walk.id}`),
    onError: () => {
      id.current = newId()
    },
  })
}

const all = (words: string, names: string[]): [string, string][] => [
  ['', words],
  ...names.map((name): [string, string] => [name, name]),
]

/** Begin with one drum by its tag, or with a shelf, a kind or a kit. */
export function BeginWalk() {
  const choices = useQuery({
    queryKey: keys.choices,
    queryFn: () => unwrap(api.GET('/api/register/choices')),
  })
  const [narrowed, setNarrowed] = useState(NOTHING)
  const [out, setOut] = useState(false)
  const start = useStart()
  const set = (name: keyof typeof NOTHING) => (value: string) => setNarrowed({ ...narrowed, [name]: value })
  const chosen = Object.values(narrowed).some(Boolean)
  const refused = start.error instanceof ApiError ? start.error.body.message : ''
  const walk = () => start.mutate({ ...narrowed, going_out: out })
  useKeys({ ' ': chosen ? walk : undefined })
  return (
    <Begin aria-label="Begin" role="region">
      <div>
        <h2>One drum</h2>
        <FindDrum
          problem={chosen ? '' : refused}
          onTag={(tag) => start.mutate({ tags: [tag.trim()], going_out: out })}
        />
      </div>
      <div>
        <h2>A shelf, a kind or a kit</h2>
        <Three>
          <Select
            label="Place"
            value={narrowed.place}
            onChange={set('place')}
            options={all('every place', choices.data?.places ?? [])}
          />
          <Select
            label="Kind"
            value={narrowed.kind}
            onChange={set('kind')}
            options={[['', 'every kind'], ...Object.entries(choices.data?.kinds ?? {})]}
          />
          <Select
            label="Kit"
            value={narrowed.kit}
            onChange={set('kit')}
            options={all('every kit', choices.data?.kits ?? [])}
          />
        </Three>
        {chosen && refused ? <Problem>{refused}</Problem> : null}
        <p>
          <Main isDisabled={!chosen || start.isPending} onPress={walk}>
            Walk along them <Key>space</Key>
          </Main>
          <Plain aria-pressed={out} onPress={() => setOut(!out)}>
            {out ? 'They go out ✓' : 'They go out'}
          </Plain>
        </p>
      </div>
    </Begin>
  )
}

const Begin = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.5fr);
  border-bottom: 1px solid var(--rule);
  > div {
    display: grid;
    gap: 12px;
    align-content: start;
    padding: 16px 28px 20px;
  }
  > div + div {
    border-left: 1px solid var(--rule);
  }
  h2 {
    font-size: 19px;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
  }
  p > button {
    min-height: 56px;
  }
  [aria-pressed='true'] {
    background: var(--faint);
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    > div {
      padding: 14px 16px;
    }
    > div + div {
      border-left: 0;
      border-top: 1px solid var(--rule);
    }
  }
`
const Three = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 12px 18px;
`
