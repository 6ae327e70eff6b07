import { Link } from 'react-router'
import styled from 'styled-components'
import { hz as hertz } from '../../../../../domain/pitch'
import { RingPicture } from '../../../../../ui/TapPictures'
import type { Heard } from './hear'

const cents = (size: number) => `${size.toFixed(0)} ${Math.round(size) === 1 ? 'cent' : 'cents'}`

/** The tap just heard, as it rang and settled. */
export function LastTap({ job, tap }: { job: string; tap: Heard }) {
  const sharp = Math.round(tap.glide_cents)
  return (
    <Last to={`/bench/${job}/taps`}>
      <RingPicture
        ring={tap.picture}
        label={`The last tap rang away${tap.hz ? `, ${sharp} cents sharp at first` : ''}`}
      />
      <span>
        {tap.hz ? `${tap.hz.toFixed(1)} Hz ± ${cents(1.96 * (tap.cents_sigma ?? 0))}` : 'not taken'}
        {tap.second ? (
          <b>
            or {hertz(tap.second.hz)} Hz, {Math.max(1, Math.round(10 * tap.second.chance))} in 10
          </b>
        ) : null}
        <small>{sharp > 3 ? `${cents(sharp)} sharp at the stroke` : 'All taps'}</small>
      </span>
    </Last>
  )
}

const Last = styled(Link)`
  display: flex;
  align-items: center;
  gap: 14px;
  margin: 6px 0 0 10px;
  text-decoration: none;
  color: inherit;
  font-size: 15px;
  svg {
    flex: none;
    width: 150px;
    height: 46px;
  }
  b {
    display: block;
    font-weight: 600;
  }
  small {
    display: block;
    color: var(--soft);
    font-size: 13px;
    text-decoration: underline;
  }
`
