/** What may happen to a line, as a person says it. */
export const DEEDS = [
  { deed: 'bought', words: 'Some arrived', number: 'How many arrived', done: 'They lie there' },
  { deed: 'counted', words: 'Counted', number: 'How many are there', done: 'That is the count' },
  { deed: 'written-off', words: 'Written off', number: 'How many go', done: 'Write off' },
  { deed: 'back', words: 'Faulty', number: 'How many', done: 'Put apart, to go back' },
  { deed: 'moved', words: 'Put elsewhere', number: 'How many', done: 'Put there' },
  { deed: 'fitted', words: 'Fitted', number: 'How many', done: 'Taken' },
  { deed: 'lent', words: 'Lent', number: 'How many', done: 'Lend' },
] as const
export type Deed = (typeof DEEDS)[number]['deed']

export const of = (deed: Deed) => DEEDS.find((each) => each.deed === deed) ?? DEEDS[0]
