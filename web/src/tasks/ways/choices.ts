import { between, type Likely } from '../../domain/likely'
import type { Schemas } from '../../api/client'

export type Ways = Schemas['WorkshopOut']
/** The moments schools are for, and the minutes before a show. */
export type Moment = Schemas['SchoolOut']['moment'] | 'show'

/** Choices nobody quarrels about, by the moment they come up. */
export const PLAIN: { way: keyof Ways; moment: Moment; label: string; options: [string, string][] }[] = [
  {
    way: 'leave_above',
    moment: 'after',
    label: 'New heads are left',
    options: [
      ['true', 'above pitch, by what they will drop'],
      ['false', 'at pitch'],
    ],
  },
  {
    way: 'cadence',
    moment: 'tension',
    label: 'Turns are confirmed',
    options: [
      ['rod', 'rod by rod'],
      ['pair', 'by facing pair'],
      ['pass', 'by pass'],
    ],
  },
  {
    way: 'slacken_by',
    moment: 'tension',
    label: 'Slackening is confirmed',
    options: [
      ['pass', 'by pass'],
      ['pair', 'by facing pair'],
      ['rod', 'rod by rod'],
    ],
  },
  {
    way: 'tap_round',
    moment: 'clearing',
    label: 'Rods are tapped',
    options: [
      ['true', 'straight round'],
      ['false', 'in the order they are turned'],
    ],
  },
  {
    way: 'step_32',
    moment: 'clearing',
    label: 'Finest step when clearing',
    options: [
      ['4', '1/8 turn'],
      ['2', '1/16 turn'],
      ['1', '1/32 turn'],
    ],
  },
  {
    way: 'length_unit',
    moment: 'after',
    label: 'Lengths in',
    options: [
      ['in', 'inches'],
      ['mm', 'millimetres'],
    ],
  },
]

const LIFE = between(3, 120, 'Usually 3 months to 10 years.')
export const NUMBERS: { way: keyof Ways; moment: Moment; label: string; likely?: Likely }[] = [
  {
    way: 'a4_hz',
    moment: 'sound',
    label: 'Reference A, Hz',
    likely: between(415, 466, 'A is usually 415 to 466 Hz.'),
  },
  {
    way: 'even_spread_hz',
    moment: 'clearing',
    label: 'Even enough: spread up to, Hz',
    likely: between(0.5, 8, 'Usually 1 to 4 Hz.'),
  },
  {
    way: 'rest_minutes',
    moment: 'after',
    label: 'Rest after clearing, minutes',
    likely: between(0, 240, 'Usually not more than 4 hours.'),
  },
  {
    way: 'check_after_days',
    moment: 'after',
    label: 'Settling check after, days',
    likely: between(1, 14, 'Usually within a few days.'),
  },
  { way: 'batter_life_months', moment: 'after', label: 'A batter head lasts, months', likely: LIFE },
  { way: 'resonant_life_months', moment: 'after', label: 'A resonant head lasts, months', likely: LIFE },
  {
    way: 'batter_life_hours',
    moment: 'after',
    label: 'A batter head stands, hours of playing (0: not counted)',
  },
  { way: 'falls_times', moment: 'after', label: 'A head falls fast at so many times what its kind falls' },
  {
    way: 'turned_visits',
    moment: 'after',
    label: 'Rods are turned again and again from so many visits in a row',
  },
  {
    way: 'callout_plays',
    moment: 'show',
    label: 'It cannot be played',
  },
  { way: 'callout_stands', moment: 'show', label: 'It falls, sinks or slides' },
  { way: 'callout_rods', moment: 'show', label: 'A rod is missing' },
  { way: 'callout_sounds', moment: 'show', label: 'It sounds wrong' },
  { way: 'callout_noise', moment: 'show', label: 'It rattles or buzzes' },
  { way: 'callout_beside', moment: 'show', label: 'Felts, sleeves, wing nuts' },
  { way: 'copy_days', moment: 'after', label: 'Say so when the last backup is older than, days (0: never)' },
]

/** The moments of the work, in its order. */
export const MOMENTS: [Moment, string][] = [
  ['before', 'Before the drum is opened'],
  ['fitting', 'Fitting a head'],
  ['tension', 'Bringing it up'],
  ['clearing', 'Clearing'],
  ['sound', 'How it should sound'],
  ['after', 'Afterwards'],
  ['show', 'What helps most before a show, 0 to 10'],
]

const TRUE_OR_FALSE = new Set(['leave_above', 'tap_round'])

/** The form as the server takes it: numbers as numbers, yes and no as such. */
export function asWays(form: Record<string, string>): Schemas['WaysIn'] {
  const numbers = [...NUMBERS.map(({ way }) => way), 'step_32']
  const typed = Object.entries(form).map(([name, value]) => {
    if (TRUE_OR_FALSE.has(name)) return [name, value === 'true']
    return [name, numbers.includes(name) ? Number(value.replace(',', '.')) : value]
  })
  return Object.fromEntries(typed) as Schemas['WaysIn']
}
