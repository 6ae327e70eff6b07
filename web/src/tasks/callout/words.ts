import type { Drum, Step } from './log/fold'

/** 8.666 → '8:40'. */
export function minutesWords(minutes: number): string {
  const seconds = Math.max(0, Math.round(minutes * 60))
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}

/** 'Lugger, bottom head' as far as the step is about one drum. */
export const whereOf = (step: Step, drums: readonly Drum[]): string =>
  drums.find((drum) => drum.tag === step.drum)?.name ?? step.drum

const isOwn = (part: string): boolean => !part.startsWith('one:') && !part.startsWith('giver:')

/** Parts of the bag a step uses up. */
export const bagParts = (step: Step): string[] => step.uses.filter(isOwn)

/** Why a step that could be done is not in the plan. */
export function whyOut(step: Step, parts: ReadonlyMap<string, number>, kept: readonly Step[]): string {
  const short = bagParts(step).find((part) => (parts.get(part) ?? 0) < 1)
  if (short) return `no ${short} in the bag`
  const shared = step.uses.find((part) => !isOwn(part) && kept.some((each) => each.uses.includes(part)))
  if (shared?.startsWith('giver:')) return 'that drum gives its rod elsewhere'
  if (shared) return 'done otherwise'
  return 'no minutes left for it'
}
