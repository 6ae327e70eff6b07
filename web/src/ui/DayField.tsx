import { parseDate, parseDateTime, type CalendarDate, type CalendarDateTime } from '@internationalized/date'
import { DateField, DateInput, DateSegment, FieldError, I18nProvider, Label } from 'react-aria-components'
import styled from 'styled-components'
import { clock, dayOf, shortDate, weekday } from '../domain/dates'
import { useFault } from './useFault'

interface Props {
  label: string
  /** A day as the server writes it, 2026-12-06, or with its hour, 2026-12-06T19:30; '' for none. */
  value: string
  onChange: (value: string) => void
  error?: string | undefined
  name?: string
  /** With the hour. */
  hour?: boolean
  hideLabel?: boolean
  disabled?: boolean
}

/** Day, month, year, as it is written everywhere else here; above it the day in words, so that nobody takes a month for a day. */
const AS_HERE = 'en-GB'

const read = (value: string, hour: boolean): CalendarDate | CalendarDateTime | null => {
  try {
    return value ? (hour ? parseDateTime(value) : parseDate(value)) : null
  } catch {
    return null
  }
}
const inWords = (value: string, hour: boolean): string => {
  const then = hour ? new Date(value) : dayOf(value)
  if (!value || Number.isNaN(then.getTime())) return ''
  return [`${weekday(then)} ${shortDate(then)}`, hour ? clock(then) : ''].filter(Boolean).join(', ')
}

/** A day, typed part by part or stepped with the arrow keys. */
export function DayField({ label, value, onChange, error, name, hour = false, hideLabel, disabled }: Props) {
  const field = useFault<HTMLDivElement>(Boolean(error))
  return (
    <I18nProvider locale={AS_HERE}>
      <Wrap
        ref={field}
        aria-label={label}
        value={read(value, hour)}
        onChange={(next) => onChange(next ? next.toString().slice(0, hour ? 16 : 10) : '')}
        granularity={hour ? 'minute' : 'day'}
        hourCycle={24}
        isInvalid={Boolean(error)}
        isDisabled={disabled ?? false}
        validationBehavior="aria"
        {...(name ? { name } : {})}
      >
        <Label>
          {hideLabel ? null : label} <b>{inWords(value, hour)}</b>
        </Label>
        <Parts>{(segment) => <DateSegment segment={segment} />}</Parts>
        <Problem>{error}</Problem>
      </Wrap>
    </I18nProvider>
  )
}

const Wrap = styled(DateField<CalendarDate | CalendarDateTime>)`
  display: flex;
  flex-direction: column;
  gap: 3px;
  min-width: 0;
  > span:first-child {
    min-height: 18px;
    font-size: 13.5px;
    color: var(--soft);
    white-space: nowrap;
  }
  b {
    font-weight: 500;
    color: var(--ink);
  }
`
const Parts = styled(DateInput)`
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 6px 2px;
  border-bottom: 1.5px solid var(--ink);
  font: 400 17px var(--mono);
  letter-spacing: -0.03em;
  white-space: nowrap;
  &[data-invalid] {
    border-bottom: 3px double var(--ink);
  }
  [role='spinbutton'] {
    padding: 4px 1px;
    border-radius: 2px;
    outline: 0;
    &[data-placeholder] {
      color: var(--soft);
    }
    &[data-focused] {
      background: var(--ink);
      color: var(--on-ink);
    }
  }
`
const Problem = styled(FieldError)`
  font-size: 14px;
  font-weight: 600;
`
