import { useState } from 'react'
import styled from 'styled-components'
import { api, ApiError, unwrap } from '../../api/client'
import { useDonors } from '../../api/donors'
import { Plain } from '../../ui/Button'
import { DayField } from '../../ui/DayField'
import { Donors } from '../../ui/Donors'
import { Field } from '../../ui/Field'
import { Problem } from '../../ui/Page'
import { useAct } from './useShelf'

const FRESH = { what: 'tension rod', from_tag: '', to: '', due: '', rod: 0 }

/** A part lent from one drum to another, or to somebody: never without a record. */
export function LendForm({ onLent }: { onLent: () => void }) {
  const [said, setSaid] = useState(FRESH)
  const lend = useAct<typeof FRESH>((id, asked) => {
    // A tag has a figure in it; a name of somebody mostly has none.
    const drum = /\d/.test(asked.to)
    return unwrap(
      api.POST('/api/shelf/loans', {
        body: {
          id,
          number: 1,
          what: asked.what,
          from_tag: asked.from_tag,
          from_rod: asked.rod || null,
          line: null,
          to_tag: drum ? asked.to : '',
          to_words: drum ? '' : asked.to,
          due_on: asked.due || null,
          explained: '',
        },
      }),
    ).then((done) => {
      setSaid(FRESH)
      onLent()
      return done
    })
  })
  const donors = useDonors(said.to.trim(), 'batter', 1, /\brod\b/.test(said.what) && /\d/.test(said.to))
  const refused = lend.error instanceof ApiError ? lend.error.body.fields : {}
  const set = (name: Exclude<keyof typeof FRESH, 'rod'>) => (value: string) => {
    lend.reset()
    // Another drum, or another part: the rod that was picked is not meant any more.
    setSaid({ ...said, rod: name === 'from_tag' || name === 'what' ? 0 : said.rod, [name]: value })
  }
  return (
    <Form
      aria-label="Lend a part"
      onSubmit={(event) => {
        event.preventDefault()
        lend.mutate({ asked: said })
      }}
    >
      <h2>Lend a part from one drum to another</h2>
      <Field label="What" value={said.what} onChange={set('what')} error={refused['what']} />
      <Field
        label="From drum (its tag)"
        value={said.from_tag}
        onChange={set('from_tag')}
        error={refused['from_tag']}
      />
      <Field
        label="To drum (its tag), or to whom"
        value={said.to}
        onChange={set('to')}
        error={refused['to_tag']}
      />
      <DayField label="Back by" value={said.due} onChange={set('due')} />
      <Plain type="submit" isDisabled={!said.what.trim() || lend.isPending}>
        Lend it
      </Plain>
      {lend.error && !Object.keys(refused).length ? <Problem>{lend.error.message}</Problem> : null}
      {donors.data ? (
        <Donors {...donors.data} need="" onPick={(tag, rod) => setSaid({ ...said, from_tag: tag, rod })} />
      ) : null}
      <p>
        Six rods suffer from one that is missing, eight notice, ten hardly. Take it from a snare’s batter,
        away from where rim shots fall, never beside a snare bed; better from a drum that rests tonight.
      </p>
    </Form>
  )
}

const Form = styled.form`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr)) auto;
  align-items: end;
  gap: 12px 20px;
  padding: 22px 28px;
  h2,
  p,
  section,
  [role='alert'] {
    grid-column: 1 / -1;
  }
  h2 {
    font-size: 19px;
  }
  p {
    font-size: 14.5px;
    color: var(--soft);
    max-width: 76ch;
  }
  @media (max-width: 900px) {
    grid-template-columns: 1fr 1fr;
    padding: 16px;
  }
`
