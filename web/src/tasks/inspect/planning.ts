/** What is chosen for one piece of work. */
export interface Chosen {
  id: string
  on: boolean
  /** The day it is due, as yyyy-mm-dd. */
  due: string
  /** By side, the stock item that is promised, or null where the head comes from elsewhere. */
  heads: Record<string, number | null>
}

const day = (moment: Date): string =>
  [
    moment.getFullYear(),
    String(moment.getMonth() + 1).padStart(2, '0'),
    String(moment.getDate()).padStart(2, '0'),
  ].join('-')

/** The day so many days from now. */
export function dayIn(days: number, now = new Date()): string {
  const then = new Date(now)
  then.setDate(then.getDate() + days)
  return day(then)
}
