import { longDate } from '../../domain/dates'

/** In the order they come, under the day they fall on here. */
export function byDay<T extends { at: string }>(all: readonly T[]): [string, T[]][] {
  const days: [string, T[]][] = []
  for (const each of all) {
    const day = longDate(new Date(each.at))
    const last = days.at(-1)
    if (last?.[0] === day) last[1].push(each)
    else days.push([day, [each]])
  }
  return days
}
