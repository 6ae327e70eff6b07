import { many } from './counted'

/** Pitches as the screen shows them. Reading and computing them is the server's. */

export const hz = (value: number): string => value.toFixed(1)

/** '+12', '−3', '0', with a true minus. */
export function cents(value: number): string {
  const rounded = Math.round(value)
  if (rounded === 0) return '0'
  return `${rounded > 0 ? '+' : '−'}${Math.abs(rounded)}`
}

/** '21 cents low', '4 cents high', 'level'. */
export function centsWords(value: number): string {
  const rounded = Math.round(value)
  if (rounded === 0) return 'level'
  return `${many(Math.abs(rounded), 'cent')} ${rounded < 0 ? 'low' : 'high'}`
}

const NUMBER = /^\s*\d{1,4}([.,]\d+)?\s*(hz)?\s*$/i
const NOTE = /^\s*[a-h]\s*[#♯b♭]?\s*\d\s*([+\-−]\s*\d{1,3}([.,]\d+)?\s*(c|ct|cents?)?)?\s*$/i

/** Could this be a pitch? A slip of the keys is caught before it is kept; what it means is for the server to say. */
export const looksLikePitch = (typed: string): boolean => NUMBER.test(typed) || NOTE.test(typed)
