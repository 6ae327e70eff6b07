import styled from 'styled-components'
import type { Schemas } from '../../api/client'
import { hz } from '../../domain/pitch'
import { Num, Soft } from '../../ui/Page'

/** One head’s pitch, and how much of its film’s strength it uses. */
export function FilmMargin({ name, film }: { name: string; film: Schemas['FilmOut'] }) {
  return (
    <Side>
      <span>{name}</span>
      <b>
        <Num>{hz(film.hz)}</Num> Hz <small>{film.note}</small>
      </b>
      <Margin role="img" aria-label={`film at ${Math.round(film.share * 100)} per cent of its yield`}>
        <i style={{ width: `${Math.min(100, film.share * 100)}%` }} />
      </Margin>
      <Soft>
        {film.words}
        {film.allowed ? `. Safe up to ${film.highest_hz} Hz; the maker’s own limit comes first.` : ''}
      </Soft>
    </Side>
  )
}

const Side = styled.div`
  display: flex;
  flex-direction: column;
  gap: 3px;
  font-size: 14.5px;
  line-height: 1.4;
  b {
    font-size: 24px;
    font-weight: 600;
  }
  small {
    font-size: 15px;
    font-weight: 400;
    color: var(--soft);
  }
`
/** How much of the film's strength is used; half is where we stop. */
const Margin = styled.div`
  position: relative;
  height: 10px;
  border: 1px solid var(--ink);
  border-radius: 2px;
  i {
    display: block;
    height: 100%;
    background: var(--ink);
  }
  &::after {
    content: '';
    position: absolute;
    left: 50%;
    top: -4px;
    bottom: -4px;
    border-left: 2px solid var(--ink);
  }
`
