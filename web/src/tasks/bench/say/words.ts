import type { Turns32 } from '../../../domain/turns'
import type { Next } from '../cursor'
import type { Bench } from '../log/types'

const PARTS: Record<number, string> = {
  1: 'a thirty-second',
  2: 'a sixteenth',
  4: 'an eighth',
  8: 'a quarter',
  12: 'three eighths',
  16: 'a half',
  24: 'three quarters',
}

/** Turns as one says them: “up an eighth”, “down two turns”. */
export function spokenTurns(turns: Turns32): string {
  const size = Math.abs(turns)
  if (!size) return 'level'
  const [whole, rest] = [Math.floor(size / 32), size % 32]
  const wholeWords = whole === 1 ? 'one turn' : whole ? `${whole} turns` : ''
  const restWords = rest ? (PARTS[rest] ?? `${rest} thirty-seconds`) : ''
  return `${turns > 0 ? 'up' : 'down'} ${[wholeWords, restWords].filter(Boolean).join(' and ')}`
}

/** The next instruction, as a colleague would read it out. */
export function spoken(bench: Bench, next: Next, rod: number | null): string {
  switch (next.kind) {
    case 'turn': {
      if (next.group.length > 2) return `Every rod ${spokenTurns(next.owed)}. ${next.group.join(', ')}.`
      return `${next.group.join(' and ')}, ${spokenTurns(next.owed)}.`
    }
    case 'read':
      if (rod === null) return 'Every rod is read.'
      return bench.means === 'ear' ? `Rod ${rod}, beside ${bench.head.reference ?? 1}.` : `Tap at ${rod}.`
    case 'cleared':
      return 'Clear.'
    case 'stuck':
      return 'No whole step would make it more even.'
    case 'passes-done':
      return next.step.enough
    case 'at':
      return next.step.kind === 'close' ? 'Close the job.' : `${next.step.title}. ${next.step.say}`
    case 'closed':
      return 'Closed.'
  }
}
