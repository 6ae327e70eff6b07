import type { Body } from '../../../api/outbox'
import { turnWords, turns32 } from '../../../domain/turns'

/** An entry as it is said until the server has said it. */
export function entryWords(body: Body): string {
  switch (body.kind) {
    case 'reading':
      return `rod ${body.rod} at ${body.typed}`
    case 'tapped':
      return `rod ${body.rod} ${body.turns_32 ? `${turnWords(turns32(body.turns_32))}, then ` : ''}at ${body.typed}`
    case 'turned':
      return turnedWords(body.made)
    case 'note':
      return `note: ${body.text}`
    case 'target':
      return `wanted pitch ${body.typed || 'held'}`
    case 'plan':
      return 'working out the turns'
    case 'step_size':
      return 'another step size'
    case 'step_done':
      return 'a step done'
    case 'once_more':
      return 'cleared once more'
    case 'pass_added':
      return 'one more pass'
    case 'cadence':
      return `turns confirmed by ${body.by}`
    case 'answer':
      return `${body.question.replaceAll('-', ' ')} answered`
    case 'school':
      return 'otherwise from here on'
    case 'found':
      return body.finding.replaceAll('-', ' ')
    case 'put_right':
      return 'put right on the bench'
    case 'close':
      return 'closing the job'
    default:
      return body.kind.replaceAll('_', ' ')
  }
}

function turnedWords(made: { rod: number; turns_32: number | null }[]): string {
  const who = made.length > 4 ? `${made.length} rods` : `rod ${made.map((each) => each.rod).join(', ')}`
  const [first] = made
  if (!first || made.some((each) => each.turns_32 !== first.turns_32)) return `${who} turned`
  return first.turns_32 === null ? `${who} skipped` : `${who} ${turnWords(turns32(first.turns_32))}`
}
