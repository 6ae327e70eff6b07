import styled from 'styled-components'
import { axisOf, placeOf, turnsOf } from './axis'
import type { Kit, KitDrum, Plan } from './useKit'

interface Props {
  kit: Kit
  plan: Plan | undefined
  stays: string[]
  onDrum: (tag: string) => void
}

const percent = (share: number) => `${(share * 100).toFixed(2)}%`
/** A step between notes nearer than this share of the height has no room for its words. */
const ROOM_FOR_WORDS = 0.085
/** Names in more columns than this are set smaller. */
const MANY = 6
/** So many crowded pairs are drawn; the words beside name them all. */
const MOST_CROWDED = 3

/** One pitch axis: every drum a column, its batter a thick beam, its resonant a thin one, a dot the drum's own note. Dotted is now. */
export function KitPicture({ kit, plan, stays, onDrum }: Props) {
  const axis = axisOf(kit, plan)
  const drums = kit.drums.filter((each) => !each.left_out)
  const middle = (tag: string) => (drums.findIndex((each) => each.tag === tag) + 0.5) / drums.length
  const note = (drum: KitDrum) => placeOf(plan, drum)?.note_hz ?? drum.note_hz
  const noteOf = (tag: string) => {
    const drum = drums.find((each) => each.tag === tag)
    return (drum && note(drum)) ?? 0
  }
  const hasRoom = (step: Plan['steps'][number]) =>
    Math.abs(axis.at(noteOf(step.upper)) - axis.at(noteOf(step.lower))) > ROOM_FOR_WORDS
  const crowded = (plan?.crowded ?? []).slice(0, MOST_CROWDED)
  return (
    <Frame style={{ ['--drums' as never]: drums.length }}>
      <Stage role="img" aria-label="Every drum’s heads and note by height of pitch">
        {axis.lines.map((line) => (
          <Line key={line.name} style={{ top: percent(axis.at(line.hz)) }}>
            <span>{line.name}</span>
          </Line>
        ))}
        <Columns>
          <svg viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden>
            {plan?.steps.map((step) => (
              <path
                key={step.upper}
                data-kept={step.kept || undefined}
                d={`M${middle(step.upper) * 100} ${axis.at(noteOf(step.upper)) * 100} L${middle(step.lower) * 100} ${axis.at(noteOf(step.lower)) * 100}`}
              />
            ))}
            {crowded.map((each) => (
              <path
                key={each.one + each.other}
                className="crowded"
                d={`M${middle(each.one) * 100} ${axis.at(each.one_hz) * 100} L${(each.other ? middle(each.other) : 1) * 100} ${axis.at(each.other_hz) * 100}`}
              />
            ))}
          </svg>
          {drums.map((drum) => (
            <Column key={drum.tag}>
              <Drum drum={drum} plan={plan} at={axis.at} />
            </Column>
          ))}
          {plan?.steps.filter(hasRoom).map((step) => (
            <Between
              key={step.upper}
              style={{
                left: percent((middle(step.upper) + middle(step.lower)) / 2),
                top: percent((axis.at(noteOf(step.upper)) + axis.at(noteOf(step.lower))) / 2),
              }}
            >
              {step.words}
            </Between>
          ))}
          {crowded.map((each) => (
            <Near
              key={each.one + each.other}
              style={{
                left: percent((middle(each.one) + (each.other ? middle(each.other) : 1)) / 2),
                top: percent((axis.at(each.one_hz) + axis.at(each.other_hz)) / 2),
              }}
            >
              now {Math.round(each.cents)} {Math.round(each.cents) === 1 ? 'cent' : 'cents'}
            </Near>
          ))}
        </Columns>
      </Stage>
      <Feet data-many={drums.length > MANY || undefined}>
        {drums.map((drum) => {
          const turns = turnsOf(placeOf(plan, drum))
          const owed = placeOf(plan, drum)?.heads.some((each) => each.job)
          return (
            <button key={drum.tag} type="button" onClick={() => onDrum(drum.tag)}>
              <b>{drum.name}</b>
              <span>
                {drum.kind_words} {drum.size}
              </span>
              {turns.map((words) => (
                <i key={words} data-owed={(owed && !words.endsWith('stays')) || undefined}>
                  {stays.includes(drum.tag) ? 'left as it is' : words}
                </i>
              ))}
            </button>
          )
        })}
      </Feet>
    </Frame>
  )
}

function Drum({ drum, plan, at }: { drum: KitDrum; plan: Plan | undefined; at: (hz: number) => number }) {
  const placed = placeOf(plan, drum)
  const batter = drum.heads.find((each) => each.side === 'batter')
  const note = placed?.note_hz ?? drum.note_hz
  const moves = placed?.heads.some((each) => each.job) ?? false
  return (
    <>
      {batter ? (
        <Room
          style={{
            top: percent(at(batter.highest_hz)),
            bottom: percent(1 - at(batter.lowest_hz)),
          }}
        />
      ) : null}
      {drum.heads.map((head) => {
        const to = placed?.heads.find((each) => each.side === head.side)
        const went = to?.job && head.now_hz ? Math.sign(to.hz - head.now_hz) : 0
        return (
          <Head key={head.side}>
            {head.now_hz && (went || !to) ? (
              <Beam data-side={head.side} data-now style={{ top: percent(at(head.now_hz)) }} />
            ) : null}
            {to ? <Beam data-side={head.side} style={{ top: percent(at(to.hz)) }} /> : null}
            {to && went && head.now_hz ? (
              <Arrow
                data-side={head.side}
                data-up={went > 0 || undefined}
                style={{
                  top: percent(Math.min(at(head.now_hz), at(to.hz))),
                  height: percent(Math.abs(at(head.now_hz) - at(to.hz))),
                }}
              />
            ) : null}
          </Head>
        )
      })}
      {moves && drum.note_hz ? <Dot data-now style={{ top: percent(at(drum.note_hz)) }} /> : null}
      {note ? (
        <Dot style={{ top: percent(at(note)) }}>
          <span>{Math.round(note)}</span>
        </Dot>
      ) : null}
    </>
  )
}

const Frame = styled.div`
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
  overflow-x: auto;
  --left: 52px;
  --half: 32px;
  > * {
    min-width: calc(var(--drums) * 78px + var(--left));
  }
  @media (max-width: 700px) {
    --left: 34px;
    --half: 19px;
    > * {
      min-width: calc(var(--drums) * 66px + var(--left));
    }
  }
`
const Stage = styled.div`
  position: relative;
  flex: 1;
  min-height: 330px;
`
const Line = styled.div`
  position: absolute;
  left: 0;
  right: 0;
  border-top: 1px solid color-mix(in srgb, var(--rule) 75%, transparent);
  span {
    position: absolute;
    top: -9px;
    padding-right: 8px;
    background: var(--ground);
    font: 500 12.5px/18px var(--mono);
    color: var(--soft);
  }
`
const Columns = styled.div`
  position: absolute;
  inset: 0 0 0 var(--left);
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    overflow: visible;
  }
  path {
    fill: none;
    stroke: var(--soft);
    stroke-width: 1.2;
    stroke-dasharray: 1 4;
    vector-effect: non-scaling-stroke;
  }
  path[data-kept] {
    stroke-dasharray: none;
    opacity: 0.55;
  }
  path.crowded {
    stroke: var(--ink);
    stroke-width: 1.6;
    stroke-dasharray: 2 3;
  }
`
const Column = styled.div`
  position: relative;
  min-width: 0;
`
const Head = styled.div`
  display: contents;
`
const Room = styled.div`
  position: absolute;
  left: calc(50% - var(--half));
  width: calc(2 * var(--half));
  background: var(--faint);
  opacity: 0.6;
`
const Beam = styled.div`
  position: absolute;
  z-index: 1;
  left: calc(50% - var(--half));
  width: calc(2 * var(--half));
  height: 3px;
  margin-top: -1.5px;
  border-radius: 2px;
  background: var(--ink);
  &[data-side='batter'] {
    left: calc(50% - var(--half) - 3px);
    width: calc(2 * var(--half) + 6px);
    height: 7px;
    margin-top: -3.5px;
    border-radius: 4px;
  }
  &[data-now] {
    height: 0;
    margin-top: -1px;
    background: transparent;
    border-top: 2px dotted var(--soft);
    border-radius: 0;
  }
  &[data-now][data-side='batter'] {
    border-top-width: 3px;
  }
`
const Arrow = styled.div`
  position: absolute;
  z-index: 1;
  left: calc(50% + var(--half) + 6px);
  border-left: 2px solid var(--red);
  &[data-side='resonant'] {
    left: calc(50% + var(--half) + 14px);
  }
  &::after {
    content: '';
    position: absolute;
    left: -5px;
    bottom: -2px;
    border: 4px solid transparent;
    border-top: 7px solid var(--red);
    border-bottom: 0;
  }
  &[data-up]::after {
    top: -2px;
    bottom: auto;
    border-bottom: 7px solid var(--red);
    border-top: 0;
  }
`
const Dot = styled.div`
  position: absolute;
  z-index: 1;
  left: calc(50% - 8px);
  width: 16px;
  height: 16px;
  margin-top: -8px;
  border-radius: 50%;
  background: var(--ink);
  span {
    position: absolute;
    left: 23px;
    top: -2px;
    font: 600 15px/20px var(--mono);
    @media (max-width: 700px) {
      left: 19px;
      font-size: 12.5px;
    }
  }
  &[data-now] {
    background: transparent;
    border: 1.5px dashed var(--soft);
  }
`
const Between = styled.span`
  position: absolute;
  z-index: 1;
  translate: -50% -50%;
  padding: 0 4px;
  background: var(--ground);
  font-size: 13px;
  line-height: 1.2;
  color: var(--soft);
  white-space: nowrap;
  @media (max-width: 700px) {
    display: none;
  }
`
const Near = styled(Between)`
  translate: -50% calc(-100% - 5px);
  background: none;
  color: var(--ink);
  font-weight: 600;
`
const Feet = styled.div`
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  padding-left: var(--left);
  border-top: 1px solid var(--rule);
  button {
    display: flex;
    flex-direction: column;
    align-items: center;
    gap: 1px;
    min-height: 88px;
    padding: 10px 3px 8px;
    border: 0;
    background: transparent;
    color: var(--ink);
    font: 400 13.5px/1.3 var(--text);
    text-align: center;
    cursor: pointer;
  }
  button:hover {
    background: var(--lifted);
  }
  b {
    font: 600 18px/1.2 var(--slab);
    max-width: 100%;
    overflow-wrap: anywhere;
  }
  &[data-many] b {
    font-size: 15px;
  }
  span {
    color: var(--soft);
  }
  i {
    font-style: normal;
  }
  i[data-owed] {
    color: var(--red);
    font-weight: 650;
  }
  @media (max-width: 700px) {
    b,
    &[data-many] b {
      font-size: 13px;
    }
    button {
      font-size: 12.5px;
    }
  }
`
