import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { hz } from '../../domain/pitch'
import { turns32 } from '../../domain/turns'
import { Main, Quiet } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Dialog } from '../../ui/Dialog'
import { Field } from '../../ui/Field'
import { Num, Soft } from '../../ui/Page'
import { Select } from '../../ui/Select'
import { Tally } from '../../ui/Tally'
import type { KitDrum, Placed, Wish } from './useKit'

interface Props {
  drum: KitDrum
  placed: Placed | undefined
  wish: Wish
  onWish: (wish: Wish) => void
  onClose: () => void
}

type Goes = 'free' | 'stays' | 'note'

const WAYS: readonly (readonly [string, string])[] = [
  ['', 'as this drum has it'],
  ['unison', 'both heads the same'],
  ['100', 'resonant a semitone above'],
  ['300', 'resonant a minor third above'],
  ['500', 'resonant a fourth above'],
  ['-300', 'resonant a minor third below'],
]

const without = <T,>(of: Record<string, T> | undefined, tag: string): Record<string, T> =>
  Object.fromEntries(Object.entries(of ?? {}).filter(([each]) => each !== tag))

/** What one drum does in the plan: goes where the plan wants it, stays, or has a note of its own; and how its two heads stand to each other. */
export function DrumInKit({ drum, placed, wish, onWish, onClose }: Props) {
  const { tag } = drum
  const [goes, setGoes] = useState<Goes>(
    wish.stays?.includes(tag) ? 'stays' : wish.notes?.[tag] ? 'note' : 'free',
  )
  const [typed, setTyped] = useState(wish.notes?.[tag] ?? '')
  const [way, setWay] = useState(wish.above?.[tag] ?? '')
  const read = drum.heads.every((each) => each.side !== 'batter' || each.now_hz)
  const keep = () => {
    const stays = (wish.stays ?? []).filter((each) => each !== tag)
    onWish({
      ...wish,
      stays: goes === 'stays' ? [...stays, tag] : stays,
      notes: { ...without(wish.notes, tag), ...(goes === 'note' && typed.trim() ? { [tag]: typed } : {}) },
      above: { ...without(wish.above, tag), ...(way ? { [tag]: way } : {}) },
    })
    onClose()
  }
  return (
    <Dialog title={`${drum.name} in this kit`} open onClose={onClose}>
      <Heads>
        {drum.heads.map((head) => {
          const to = placed?.heads.find((each) => each.side === head.side)
          return (
            <div key={head.side}>
              <b>{head.side}</b>
              <span>
                {head.now_hz ? (
                  <>
                    <Num>{hz(head.now_hz)}</Num> Hz now
                  </>
                ) : (
                  'never read'
                )}
                {to?.job ? (
                  <>
                    {' '}
                    → <Num>{hz(to.hz)}</Num> Hz <Soft>{to.note}</Soft>
                  </>
                ) : null}
              </span>
              {to?.job && to.turns_32 ? (
                <Tally turns={turns32(to.turns_32)} owed size={22} words="beside" after=" each" />
              ) : (
                <Soft>{to?.words ?? ''}</Soft>
              )}
            </div>
          )
        })}
        {drum.notes.map((note) => (
          <p key={note}>{note[0]?.toUpperCase() + note.slice(1)}.</p>
        ))}
      </Heads>
      <Choice<Goes>
        label="It"
        value={goes}
        onChange={setGoes}
        options={[
          { value: 'free', words: 'goes where it is wanted' },
          { value: 'stays', words: 'stays as it is', disabled: !read },
          { value: 'note', words: 'has this note' },
        ]}
      />
      {goes === 'note' ? (
        <Field
          label="Its own note, struck in the middle"
          value={typed}
          onChange={setTyped}
          hint="hertz, or a note such as D3 -10"
          name="note"
        />
      ) : null}
      {drum.heads.length > 1 ? (
        <Select
          label="Its two heads"
          value={way}
          onChange={setWay}
          options={WAYS.some(([each]) => each === way) ? WAYS : [...WAYS, [way, way] as const]}
          hint={way ? undefined : drum.way_words}
        />
      ) : null}
      <Main onPress={keep}>Plan it so</Main>
      <Foot>
        <Link to={`/drums/${tag}`}>
          <u>its page</u>
        </Link>
        <Link to={`/drums/${tag}/sound`}>
          <u>how it should sound</u>
        </Link>
        <Quiet onPress={onClose}>Leave it</Quiet>
      </Foot>
    </Dialog>
  )
}

const Heads = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  font-size: 15px;
  > div {
    display: grid;
    grid-template-columns: 84px minmax(0, 1fr) auto;
    align-items: end;
    gap: 8px;
    min-height: 30px;
  }
`
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 22px;
  > button {
    margin-left: auto;
  }
`
