import type { Schemas } from '../../api/client'

export type Ways = Schemas['WorkshopOut']
export const CHOICES: { [K in keyof Ways]?: { label: string; options: [string, string][] } } = {
  length_unit: {
    label: 'Lengths in',
    options: [
      ['in', 'inches'],
      ['mm', 'millimetres'],
    ],
  },
  pattern: {
    label: 'Order of the rods',
    options: [
      ['star', 'star'],
      ['neighbour-star', 'neighbour star'],
      ['plus-cross', 'plus, then cross'],
      ['every-third', 'every third rod'],
      ['every-second', 'every second rod'],
    ],
  },
  step_32: {
    label: 'Finest step when clearing',
    options: [
      ['4', '1/8 turn'],
      ['2', '1/16 turn'],
      ['1', '1/32 turn'],
    ],
  },
  stretch: {
    label: 'Seating a new head',
    options: [
      ['palm', 'palm pressure'],
      ['over-tension', 'over-tension, rest, back to fingers'],
      ['barely', 'barely'],
    ],
  },
  logo: {
    label: 'Logo goes',
    options: [
      ['badge', 'at the badge'],
      ['between-lugs', 'between two lugs'],
      ['twelve-oclock', 'at twelve o’clock'],
      ['throw-off', 'at the throw-off'],
      ['opposite-leg', 'away from a leg'],
    ],
  },
  first_head: {
    label: 'Of two new heads first',
    options: [
      ['resonant', 'the resonant'],
      ['batter', 'the batter'],
    ],
  },
  cadence: {
    label: 'Turns are confirmed',
    options: [
      ['rod', 'rod by rod'],
      ['pair', 'by facing pair'],
      ['pass', 'by pass'],
    ],
  },
  slacken_by: {
    label: 'Slackening is confirmed',
    options: [
      ['pass', 'by pass'],
      ['pair', 'by facing pair'],
      ['rod', 'rod by rod'],
    ],
  },
}
export const NUMBERS: { [K in keyof Ways]?: string } = {
  a4_hz: 'Reference A, Hz',
  rest_minutes: 'Rest after clearing, minutes',
  check_after_days: 'Settling check after, days',
  batter_life_months: 'A batter head lasts, months',
  resonant_life_months: 'A resonant head lasts, months',
  even_spread_hz: 'Even enough: spread up to, Hz',
}
