import { useState } from 'react'
import styled from 'styled-components'
import { Key, Main, Quiet } from '../../ui/Button'
import { useKeys } from '../../ui/useKeys'
import { tickKey, type Book, type Drum, type Standing, type Tick } from './log/fold'
import type { Enter } from './useCallout'

interface Props {
  book: Book
  stands: Standing
  enter: Enter
  may: boolean
  onWalked: () => void
}

const sideOf = (tick: Tick) => (tick.side === '' ? null : (tick.side as 'batter' | 'resonant'))

/** Strike it, look, tick what is wrong; one drum after the other, sixty seconds for all. */
export function Walk({ book, stands, enter, may, onWalked }: Props) {
  const [at, setAt] = useState(
    () => (book.drums.find((drum) => !stands.looked.has(drum.tag)) ?? book.drums[0])?.tag ?? '',
  )
  const n = book.drums.findIndex((drum) => drum.tag === at)
  const drum = book.drums[n]
  const ticked = [...stands.ticks].filter((key) => key.startsWith(`${at}|`)).length
  const next = () => {
    if (drum && !stands.looked.has(at)) enter({ kind: 'fine', drum: at })
    const after = book.drums[n + 1]
    if (after) setAt(after.tag)
    else onWalked()
  }
  const back = () => {
    const before = book.drums[n - 1]
    if (before) setAt(before.tag)
  }
  useKeys({
    ' ': may ? next : undefined,
    ArrowRight: may ? next : undefined,
    PageDown: may ? next : undefined,
    ArrowLeft: back,
    PageUp: back,
  })
  if (!drum) return null
  const last = n === book.drums.length - 1
  const following = book.drums[n + 1]?.name ?? 'what to do now'
  return (
    <Box aria-label={`Walk: ${drum.name}`}>
      <Drums aria-label="Drums of the kit">
        {book.drums.map((each) => (
          <button
            key={each.tag}
            type="button"
            aria-current={each.tag === at ? 'step' : undefined}
            data-looked={stands.looked.has(each.tag) || undefined}
            onClick={() => setAt(each.tag)}
          >
            {each.name}
            <i aria-hidden>
              {[...stands.ticks].some((key) => key.startsWith(`${each.tag}|`))
                ? '!'
                : stands.looked.has(each.tag)
                  ? '✓'
                  : ''}
            </i>
          </button>
        ))}
      </Drums>
      <h2>
        {drum.name}
        {drum.note ? <small>{drum.note}</small> : null}
      </h2>
      <Ticks key={drum.tag} {...{ drum, stands, enter, may }} />
      {may ? (
        <footer>
          <Main onPress={next}>
            {ticked
              ? last
                ? 'Walked: what now?'
                : `Next: ${following}`
              : drum.tag
                ? 'Sounds fine'
                : 'Nothing missing'}
            <Key>space</Key>
          </Main>
        </footer>
      ) : null}
    </Box>
  )
}

function Ticks({ drum, stands, enter, may }: { drum: Drum; stands: Standing; enter: Enter; may: boolean }) {
  const [more, setMore] = useState(false)
  const [rods, setRods] = useState<Tick | null>(null)
  const shown = drum.ticks.filter((tick) => tick.usual || more || isOn(tick))
  function isOn(tick: Tick): boolean {
    const start = tickKey(drum.tag, tick.finding, tick.side)
    return [...stands.ticks].some((key) => key === start || (tick.rod && key.startsWith(start)))
  }
  const say = (tick: Tick, rod: number | null) => {
    const what = { drum: drum.tag, finding: tick.finding, side: sideOf(tick), rod }
    if (stands.ticks.has(tickKey(drum.tag, tick.finding, tick.side, rod))) enter({ kind: 'not_so', ...what })
    else enter({ kind: 'ticked', degree: tick.degree as 1 | 2 | 3, ...what })
  }
  const rodsOf = rods ? (rods.side === 'resonant' ? drum.rods_resonant : drum.rods_batter) : 0
  useKeys(
    rods && may
      ? Object.fromEntries(
          [...'1234567890-=']
            .slice(0, rodsOf)
            .map((key, n): [string, () => void] => [key, () => say(rods, n + 1)]),
        )
      : Object.fromEntries(
          shown
            .slice(0, 9)
            .map((tick, n) => [
              String(n + 1),
              may ? () => (tick.rod ? setRods(rods === tick ? null : tick) : say(tick, null)) : undefined,
            ]),
        ),
  )
  return (
    <>
      {rods ? (
        <Rods role="group" aria-label={`Which rod: ${rods.words}`}>
          <p>Which rod? Counted clockwise from the badge.</p>
          {Array.from({ length: rodsOf }, (_, n) => n + 1).map((rod) => (
            <button
              key={rod}
              type="button"
              aria-pressed={stands.ticks.has(tickKey(drum.tag, rods.finding, rods.side, rod))}
              onClick={() => say(rods, rod)}
            >
              {rod}
            </button>
          ))}
        </Rods>
      ) : null}
      <Grid>
        {shown.map((tick) => (
          <button
            key={tick.finding + tick.side}
            type="button"
            disabled={!may}
            aria-pressed={isOn(tick)}
            aria-expanded={tick.rod ? rods === tick : undefined}
            onClick={() => (tick.rod ? setRods(rods === tick ? null : tick) : say(tick, null))}
          >
            {tick.words}
            {tick.rod ? <Which {...{ drum, tick, stands }} /> : null}
          </button>
        ))}
      </Grid>
      {drum.ticks.some((tick) => !tick.usual) ? (
        <Quiet onPress={() => setMore(!more)} aria-expanded={more}>
          <u>{more ? 'only what is usual' : 'something else'}</u>
        </Quiet>
      ) : null}
    </>
  )
}

/** The rods ticked so far: ' 3, 7'. */
function Which({ drum, tick, stands }: { drum: Drum; tick: Tick; stands: Standing }) {
  const start = tickKey(drum.tag, tick.finding, tick.side)
  const rods = [...stands.ticks].filter((key) => key.startsWith(start)).map((key) => key.slice(start.length))
  return rods.length ? <em>{rods.join(', ')}</em> : null
}

const Box = styled.section`
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 8px 28px 0;
  max-width: 900px;
  h2 {
    padding: 10px 0 8px;
    font-size: 24px;
  }
  h2 small {
    padding-left: 12px;
    font: 400 15px var(--text);
    letter-spacing: 0;
    color: var(--soft);
  }
  footer {
    position: sticky;
    bottom: var(--above-rail);
    margin-top: auto;
    padding: 10px 0 14px;
    background: var(--ground);
  }
  footer button {
    width: 100%;
  }
  @media (max-width: 700px) {
    padding: 4px 16px 0;
  }
`
const Drums = styled.nav`
  display: flex;
  gap: 4px;
  overflow-x: auto;
  button {
    flex: none;
    min-height: 44px;
    padding: 0 10px;
    border: 0;
    border-radius: 2px;
    background: transparent;
    color: var(--soft);
    font-size: 15px;
    cursor: pointer;
  }
  button[data-looked] {
    color: var(--ink);
  }
  button[aria-current] {
    background: var(--faint);
    color: var(--ink);
    font-weight: 650;
  }
  i {
    padding-left: 5px;
    font: 700 14px var(--mono);
  }
`
const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(165px, 1fr));
  gap: 8px;
  button {
    min-height: 52px;
    padding: 5px 12px;
    border: 1.5px solid var(--rule);
    border-radius: 2px;
    background: transparent;
    text-align: left;
    line-height: 1.2;
    cursor: pointer;
  }
  button[aria-pressed='true'] {
    border-color: var(--ink);
    background: var(--ink);
    color: var(--on-ink);
    font-weight: 600;
  }
  em {
    padding-left: 6px;
    font: 700 15px var(--mono);
  }
`
const Rods = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 2px 0 12px;
  p {
    flex: 1 0 100%;
    color: var(--soft);
    font-size: 15px;
  }
  button {
    min-width: 52px;
    min-height: 52px;
    border: 1.5px solid var(--ink);
    border-radius: 2px;
    background: transparent;
    font: 650 18px var(--slab);
    cursor: pointer;
  }
  button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--on-ink);
  }
`
