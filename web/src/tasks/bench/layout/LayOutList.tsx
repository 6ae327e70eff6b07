import { useState } from 'react'
import styled from 'styled-components'
import { Main, Quiet } from '../../../ui/Button'
import { Choice } from '../../../ui/Choice'
import { Dialog } from '../../../ui/Dialog'
import { Field } from '../../../ui/Field'
import { Num, Problem, Soft } from '../../../ui/Page'
import type { Bench, Step } from '../log/types'
import { laidOut, useShelf, type Laid } from './useShelf'

interface Props {
  bench: Bench
  step: Step
  mayChange: boolean
}

/** Everything the job takes, before a rod is touched: where it lies, and what is short. */
export function LayOutList({ bench, step, mayChange }: Props) {
  const shelf = useShelf()
  const [asked, setAsked] = useState<Laid | null>(null)
  const laid = laidOut(bench, step, shelf.things)
  const short = laid.filter((each) => each.short)
  return (
    <List aria-label="To lay out">
      <h2>To lay out</h2>
      {short.length ? (
        <p role="status">
          <b>None left: {short.map((each) => each.name).join(', ')}.</b> Fetch it before a rod is touched.
        </p>
      ) : null}
      <ul>
        {laid.map((each) => (
          <li key={each.name} data-short={each.short || undefined}>
            <span>{each.name}</span>
            <Place of={each} onAsk={mayChange && !each.counted ? () => setAsked(each) : null} />
          </li>
        ))}
      </ul>
      {asked ? <Where of={asked} shelf={shelf} onClose={() => setAsked(null)} /> : null}
    </List>
  )
}

function Place({ of, onAsk }: { of: Laid; onAsk: (() => void) | null }) {
  const words = of.short ? 'none left' : of.place
  if (of.counted)
    return (
      <span>
        {of.place ? <b>{of.place}</b> : <Soft>no shelf on record</Soft>}
        {of.left === null ? null : (
          <Soft>
            {' '}
            <Num>{of.left}</Num> there
          </Soft>
        )}
      </span>
    )
  if (!onAsk) return words ? <b>{words}</b> : <Soft>not said</Soft>
  return (
    <Quiet
      onPress={onAsk}
      aria-label={`${of.name}: ${words || 'say where it lies'}`}
      data-unsaid={words ? undefined : true}
    >
      {words || 'where?'}
    </Quiet>
  )
}

function Where({
  of,
  shelf,
  onClose,
}: {
  of: Laid
  shelf: ReturnType<typeof useShelf>
  onClose: () => void
}) {
  const [place, setPlace] = useState(of.place)
  const [short, setShort] = useState(of.short ? 'none' : 'there')
  const keep = () =>
    shelf.keep.mutate({ name: of.name, place: place.trim(), short: short === 'none' }, { onSuccess: onClose })
  return (
    <Dialog title={of.name} open onClose={onClose}>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          keep()
        }}
      >
        <Choice
          label="On the shelf"
          value={short}
          onChange={setShort}
          options={[
            { value: 'there', words: 'there' },
            { value: 'none', words: 'none left' },
          ]}
        />
        <Field label="Where it lies" value={place} onChange={setPlace} name="place" />
        {shelf.keep.error ? <Problem>{shelf.keep.error.message}</Problem> : null}
        <Main type="submit" isDisabled={shelf.keep.isPending}>
          Keep
        </Main>
      </Form>
    </Dialog>
  )
}

const List = styled.section`
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 22px 36px;
  h2 {
    font-size: 20px;
  }
  ul {
    columns: 2 300px;
    column-gap: 40px;
  }
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 12px;
    min-height: 55px;
    padding: 3px 0;
    break-inside: avoid;
    border-top: 1px solid var(--rule);
    font-size: 15.5px;
  }
  li[data-short] > span:first-child {
    font-weight: 650;
  }
  li > button {
    max-width: 60%;
    margin-right: -10px;
    font-weight: 600;
    text-align: right;
  }
  li > button[data-unsaid] {
    color: var(--soft);
    font-weight: 450;
  }
  @media (max-width: 700px) {
    padding: 12px 16px;
  }
`
const Form = styled.form`
  display: flex;
  flex-direction: column;
  gap: 16px;
`
