import { looksLikePitch } from '../../../../domain/pitch'

/** A slip of the keys is said at once; what it means is the server's to judge. */
export function readingProblem(typed: string, means: string): string {
  const plain = typed.trim().replace(/\?$/, '')
  if (means === 'pitch')
    return looksLikePitch(plain)
      ? ''
      : 'Give a pitch in hertz, such as 174.9, or a note with cents, such as F3 +12.'
  return /^\s*\d+([.,]\d+)?\s*$/.test(plain) && Number.parseFloat(plain.replace(',', '.')) > 0
    ? ''
    : 'Give the number on the gauge or key, above nothing.'
}
