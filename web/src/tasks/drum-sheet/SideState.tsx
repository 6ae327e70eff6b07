import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { daysBetween, shortDate } from '../../domain/dates'
import { many } from '../../domain/counted'
import { centsWords, hz } from '../../domain/pitch'
import { Num, Owed, Soft } from '../../ui/Page'

interface Props {
  state: Schemas['FittedOut']
  film?: Schemas['SideSoundOut'] | null
  chosen: boolean
  onChoose: () => void
}

/** Since when, as far as anybody knows. */
export function fitted(since: Date, dated: Schemas['FittedOut']['dated'], by: string): string {
  if (dated === 'unknown') return `on it since before ${shortDate(since)}`
  return dated === 'guessed'
    ? `fitted about ${shortDate(since)}`
    : `fitted ${shortDate(since)}${by ? ` by ${by}` : ''}`
}

function age(months: number): string {
  if (months < 1) return 'this month'
  return `${many(months, 'month')} old`
}

/** Even and at pitch are two things; both are said. */
function standsWords({ cents_off, at_pitch, left_so, spread_hz, even }: Props['state']): string {
  const off = cents_off ?? null
  const pitch = off === null ? '' : at_pitch ? `at pitch (${centsWords(off)})` : centsWords(off)
  const spread =
    (spread_hz ?? null) === null ? '' : `${even ? 'even' : 'uneven'}, spread ${hz(spread_hz as number)} Hz`
  return [pitch && left_so && !at_pitch ? `${pitch}, left so` : pitch, spread].filter(Boolean).join('; ')
}

/** One side as it stands. Choosing it shows its history. */
export function SideState({ state, film, chosen, onChoose }: Props) {
  const name = state.side === 'batter' ? 'Batter' : 'Resonant'
  const late = state.check_due ? -daysBetween(new Date(), new Date(state.check_due)) : 0
  return (
    <Side onPress={onChoose} aria-pressed={chosen} data-chosen={chosen || undefined}>
      <span>
        <h2>{name}</h2>
        {state.mean_hz ? (
          <Num>
            {hz(state.mean_hz)} <small>Hz</small>
          </Num>
        ) : null}
      </span>
      <b>{state.head ?? 'no head on record'}</b>
      {state.since ? (
        <Soft>
          {fitted(new Date(state.since), state.dated, state.by)}
          {state.dated === 'unknown' ? '' : `, ${age(state.months_old)}`}
        </Soft>
      ) : null}
      {state.mean_hz ? (
        <Soft>
          {state.note}, {standsWords(state)}
        </Soft>
      ) : null}
      {film?.film ? (
        <Soft>
          wanted {hz(film.film.hz)} Hz: film at {Math.round(film.film.share * 100)} % of yield
        </Soft>
      ) : null}
      {state.lost.length ? <Owed>Rod {state.lost.join(', ')} missing</Owed> : null}
      {state.months_past ? <Owed>{many(state.months_past, 'month')} past its age</Owed> : null}
      {state.check_overdue ? (
        <Owed>
          {late > 0 ? `Check owed, ${late} ${late === 1 ? 'day' : 'days'} late` : 'Check owed today'}
        </Owed>
      ) : null}
      {state.check_due && !state.check_overdue ? (
        <Soft>check due {shortDate(new Date(state.check_due))}</Soft>
      ) : null}
      {state.job_id ? <b>On the bench: {state.job_where}</b> : null}
    </Side>
  )
}

const Side = styled(AriaButton)`
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 1px;
  width: 100%;
  padding: 11px 10px 12px 12px;
  border: 0;
  border-top: 1px solid var(--rule);
  border-left: 3.5px solid transparent;
  background: transparent;
  text-align: left;
  font-size: 15px;
  line-height: 1.4;
  cursor: pointer;
  > span:first-child {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    width: 100%;
    font-size: 21px;
  }
  h2 {
    font-size: 18px;
  }
  small {
    font-size: 13px;
    color: var(--soft);
  }
  b {
    font-weight: 600;
  }
  &[data-chosen] {
    border-left-color: var(--ink);
    background: var(--lifted);
  }
  &[data-hovered] {
    background: var(--lifted);
  }
`
