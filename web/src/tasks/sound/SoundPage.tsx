import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'
import { api, unwrap, type Schemas } from '../../api/client'
import { keys } from '../../api/keys'
import { mayChange, useSession } from '../../api/session'
import { Main } from '../../ui/Button'
import { Head, Page, Problem, Soft } from '../../ui/Page'
import { Waiting } from '../../ui/Waiting'
import { Sides } from './Sides'
import { TwoBeams } from './TwoBeams'
import { LOWEST, Wish, type By } from './Wish'

/** How one drum should sound: two heads chosen by what is heard, with what film and rods say to it. */
export function SoundPage() {
  const { tag = '' } = useParams()
  const sound = useQuery({
    queryKey: keys.sound(tag),
    queryFn: () => unwrap(api.GET('/api/sound/{tag}', { params: { path: { tag } } })),
  })
  if (sound.error) return <Problem>{sound.error.message}</Problem>
  return sound.data ? <Planner tag={tag} sound={sound.data} /> : <Waiting />
}

function Planner({ tag, sound }: { tag: string; sound: Schemas['SoundOut'] }) {
  const queries = useQueryClient()
  const may = mayChange(useSession().data)
  const wanted = sound.sides.find((each) => each.side === 'batter')?.film?.hz
  const [heard, setHeard] = useState(sound.choices[0]?.id ?? '')
  const [by, setBy] = useState<By>('batter')
  const [typed, setTyped] = useState(wanted ? String(wanted) : '')
  const lowest = heard === LOWEST
  const asked = { sound: heard, ...(lowest ? {} : { [by]: typed.trim() }) }
  const plan = useQuery({
    queryKey: keys.twoHeads(tag, asked),
    queryFn: () => unwrap(api.GET('/api/sound/{tag}/two-heads', { params: { path: { tag }, query: asked } })),
    enabled: lowest || typed.trim() !== '',
    placeholderData: keepPreviousData,
    retry: false,
  })
  const keep = useMutation({
    mutationFn: (found: Schemas['TwoHeadsOut']) =>
      unwrap(
        api.PUT('/api/sound/{tag}/wanted', {
          params: { path: { tag } },
          body: { batter: String(found.batter.hz), resonant: String(found.resonant.hz) },
        }),
      ),
    onSuccess: (fresh) => {
      queries.setQueryData(keys.sound(tag), fresh)
      void queries.invalidateQueries({ queryKey: keys.sheet(tag) })
    },
  })
  const found = plan.error ? null : (plan.data ?? null)
  const fits = found?.batter.allowed && found.resonant.allowed
  return (
    <Page>
      <Head>
        <h1>How it should sound</h1>
        <Link to={`/drums/${tag}`}>{tag}</Link>
        <Soft>Both heads make the note together. Start from equal, and change the resonant head first.</Soft>
      </Head>
      <Columns>
        <section aria-label="What is wanted">
          <Wish choices={sound.choices} {...{ heard, setHeard, by, setBy, typed, setTyped }} />
        </section>
        <section aria-label="The plan" aria-live="polite">
          {found || plan.error ? null : (
            <Soft>
              Give the batter’s pitch, or the note of the whole drum, and both heads follow from it.
            </Soft>
          )}
          {plan.error && (lowest || typed) ? <Problem>{plan.error.message}</Problem> : null}
          {found ? <TwoBeams plan={found} /> : null}
          {keep.error ? <Problem>{keep.error.message}</Problem> : null}
          {found && may ? (
            <Main onPress={() => keep.mutate(found)} isDisabled={keep.isPending || !fits}>
              {keep.isSuccess && keep.variables === found
                ? 'Kept as usual targets'
                : 'Make these its usual targets'}
            </Main>
          ) : null}
        </section>
        <section aria-label="What is known of its heads">
          <Sides sound={sound} />
        </section>
      </Columns>
    </Page>
  )
}

const Columns = styled.div`
  flex: 1;
  display: grid;
  grid-template-columns: 452px minmax(0, 1fr);
  grid-template-rows: auto 1fr;
  min-height: 0;
  > section {
    display: flex;
    flex-direction: column;
    gap: 18px;
    padding: 16px 28px 22px;
    min-width: 0;
  }
  > section:nth-child(2) {
    grid-area: 1 / 2 / 3 / 3;
    border-left: 1px solid var(--rule);
  }
  > section:last-child {
    padding-top: 0;
  }
  > section > button {
    align-self: stretch;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    > section {
      padding: 12px 16px;
    }
    > section:nth-child(2) {
      grid-area: auto;
      border-left: 0;
    }
  }
`
