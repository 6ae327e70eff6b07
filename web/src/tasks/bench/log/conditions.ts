/** A condition as a plan keeps it: always or never, or what was found or chosen, joined by all, any and not. */
export type When =
  boolean | { found: string; degree: number } | { all: When[] } | { any: When[] } | { not: When }

/** Something conditions ask about: what was found, or what was chosen. */
export interface Fact {
  finding: string
  degree: number
  side: string
}

/** Whether it holds with what was found so far. */
export function holds(when: When, found: readonly Fact[]): boolean {
  if (typeof when === 'boolean') return when
  if ('found' in when) return found.some((each) => each.finding === when.found && each.degree >= when.degree)
  if ('all' in when) return when.all.every((each) => holds(each, found))
  if ('any' in when) return when.any.some((each) => holds(each, found))
  return !holds(when.not, found)
}

/** What was found on the head a step is about, or on no head in particular. */
export const near = (side: string | null, found: readonly Fact[]): Fact[] =>
  found.filter((each) => side === null || each.side === '' || each.side === side)
