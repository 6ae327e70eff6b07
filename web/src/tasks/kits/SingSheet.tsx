import { useRef, useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { clock } from '../../domain/dates'
import { Main, Plain, Quiet } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Dialog } from '../../ui/Dialog'
import { Num, Problem, Soft } from '../../ui/Page'
import type { Kit, Wish } from './useKit'
import { useSing, useSung, type Sang } from './useSing'

interface Props {
  kit: Kit
  wish: Wish
  onWish: (wish: Wish) => void
  onClose: () => void
}

/** Under this nobody hears it; a bar of no length. */
const FAINTEST_DB = -50

const length = (level: number) => `${Math.max(2, Math.min(100, (1 - level / FAINTEST_DB) * 100)).toFixed(0)}%`

/** Strike one drum, lay a hand on it, and hear which others ring on; what would stop it, and whether it did. */
export function SingSheet({ kit, wish, onWish, onClose }: Props) {
  const drums = kit.drums.filter((each) => !each.left_out && each.note_hz)
  const [struck, setStruck] = useState(drums[0]?.tag ?? '')
  const file = useRef<HTMLInputElement>(null)
  const sung = useSung(kit.id)
  const { heard, listen, listening, words } = useSing(kit.id, struck)
  const last = sung.data?.find((each) => each.struck === struck)
  const name = drums.find((each) => each.tag === struck)?.name ?? ''
  const moved = (sang: Sang) => {
    if (!sang.move) return
    const { tag, note_hz } = sang.move
    onWish({
      ...wish,
      stays: (wish.stays ?? []).filter((each) => each !== tag),
      notes: { ...wish.notes, [tag]: `${note_hz.toFixed(2)} Hz` },
    })
    onClose()
  }
  return (
    <Dialog title="Who answers?" open onClose={onClose} wide>
      <Choice
        label="Struck"
        value={struck}
        onChange={setStruck}
        options={drums.map((each) => ({ value: each.tag, words: each.name }))}
      />
      <p>
        Wires off. Strike {name} once, wait a second, then lay a hand flat on both its heads: what rings on is
        not its own.
      </p>
      <Ways>
        <Main onPress={listen} isDisabled={heard.isPending || !struck}>
          {listening ? 'Stop' : 'Listen'}
        </Main>
        <Plain onPress={() => file.current?.click()} isDisabled={heard.isPending || listening}>
          A recording
        </Plain>
        {kit.simulated ? (
          <Plain onPress={() => heard.mutate('simulated')} isDisabled={heard.isPending || listening}>
            Simulated kit
          </Plain>
        ) : null}
        <input
          ref={file}
          type="file"
          accept="audio/*,.wav,.flac,.ogg,.aiff"
          hidden
          aria-label="A recording of one stroke"
          onChange={(event) => {
            const [chosen] = event.target.files ?? []
            event.target.value = ''
            if (chosen) heard.mutate(chosen)
          }}
        />
        <strong role="status">{words}</strong>
      </Ways>
      {heard.error ? <Problem>{heard.error.message}</Problem> : null}
      {last ? (
        <Result aria-label={`What answers ${name}`}>
          {last.sentences.map((each) => (
            <p key={each}>{each}</p>
          ))}
          <Answers answers={last} />
          <Foot>
            <Soft>heard {clock(new Date(last.at))}; kept in its history</Soft>
            {last.move ? (
              <Link to={`/drums/${last.move.tag}/start?work=${last.move.eased_by}&part=batter`}>
                <u>leave it uneven on purpose</u>
              </Link>
            ) : null}
            {last.move ? <Plain onPress={() => moved(last)}>Plan {last.move.name} so</Plain> : null}
          </Foot>
        </Result>
      ) : (
        <Soft>{name} was not struck in this kit yet.</Soft>
      )}
      <div>
        <Quiet onPress={onClose}>Close</Quiet>
      </div>
    </Dialog>
  )
}

/** How loud each answers, as bars; above it, thin, how loud it was the time before. */
function Answers({ answers: { answers, before } }: { answers: Sang }) {
  const gone = before.filter((each) => !answers.some((other) => other.tag === each.tag))
  return (
    <Bars>
      {[...answers, ...gone.map((each) => ({ ...each, gone: true }))].map((each) => {
        const was = before.find((other) => other.tag === each.tag)
        const quiet = 'gone' in each
        return (
          <li key={each.tag}>
            <b>{each.name}</b>
            <span>
              {was ? <i data-was style={{ width: length(was.level_db) }} /> : null}
              {quiet ? null : <i style={{ width: length(each.level_db) }} />}
            </span>
            <span>
              {quiet ? 'silent now' : <Num>{Math.round(each.level_db)} dB</Num>}
              {was ? <Soft>, was {Math.round(was.level_db)}</Soft> : null}
            </span>
          </li>
        )
      })}
    </Bars>
  )
}

const Ways = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  > button:first-child {
    min-width: 200px;
  }
  @media (max-width: 700px) {
    > button:first-child {
      width: 100%;
    }
  }
`
const Result = styled.section`
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding-top: 12px;
  border-top: 1px solid var(--ink);
  > p:first-child {
    font: 600 19px/1.3 var(--slab);
  }
`
const Bars = styled.ul`
  padding: 4px 0;
  li {
    display: grid;
    grid-template-columns: 120px minmax(0, 1fr) 150px;
    align-items: center;
    gap: 12px;
    min-height: 34px;
    font-size: 15px;
  }
  i {
    display: block;
    height: 9px;
    border-radius: 2px;
    background: var(--ink);
  }
  i[data-was] {
    height: 0;
    margin-bottom: 4px;
    background: none;
    border-top: 2px dotted var(--soft);
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: 84px minmax(0, 1fr) 84px;
    }
  }
`
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
`
