/** Why heads are changed (trade §11), as one-touch answers. */
export const OTHER_REASON = 'something else'
export const REASONS = [
  'coat worn through at the centre',
  'dents or craters',
  'will not hold its pitch',
  'dull or choked tone',
  'torn or split',
  'creased',
  'past its age',
  'another sound wanted',
  OTHER_REASON,
] as const
