/** Days and hours in words. */

const DAY_MS = 86_400_000

const midnight = (moment: Date): number =>
  new Date(moment.getFullYear(), moment.getMonth(), moment.getDate()).getTime()

/** A day as the server writes it, 2026-12-06, wherever this device is. */
export const dayOf = (day: string): Date => new Date(`${day}T12:00`)

export const daysBetween = (from: Date, to: Date): number =>
  Math.round((midnight(to) - midnight(from)) / DAY_MS)

export const clock = (moment: Date): string =>
  moment.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })

/** '24 Nov', with the year when it is not this one. */
export function shortDate(moment: Date, now = new Date()): string {
  const day = moment.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })
  return moment.getFullYear() === now.getFullYear() ? day : `${day} ${String(moment.getFullYear()).slice(2)}`
}

/** 'Sun' */
export const weekday = (moment: Date): string => moment.toLocaleDateString('en-GB', { weekday: 'short' })

export const longDate = (moment: Date): string =>
  moment.toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })

/** 'today', 'tomorrow 9:00', 'Thursday', '3 December'. */
export function soon(moment: Date, now = new Date()): string {
  const days = daysBetween(now, moment)
  if (days === 0) return clock(moment)
  if (days === 1) return `tomorrow ${clock(moment)}`
  if (days > 1 && days < 7) return moment.toLocaleDateString('en-GB', { weekday: 'long' })
  return moment.toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })
}

/** '38 min', '2 h 10', '3 days'. */
export function span(minutes: number): string {
  if (minutes < 60) return `${Math.max(0, Math.round(minutes))} min`
  if (minutes < 48 * 60) {
    const rest = Math.round(minutes % 60)
    return rest
      ? `${Math.floor(minutes / 60)} h ${String(rest).padStart(2, '0')}`
      : `${Math.floor(minutes / 60)} h`
  }
  return `${Math.round(minutes / 60 / 24)} days`
}

/** 'just now', '38 min ago', '3 days ago'. */
export const agoInWords = (minutes: number): string => (minutes < 1 ? 'just now' : `${span(minutes)} ago`)

/** Running time as h:mm:ss. */
export function elapsed(sinceMs: number): string {
  const seconds = Math.max(0, Math.floor(sinceMs / 1000))
  const part = (n: number) => String(n).padStart(2, '0')
  return `${Math.floor(seconds / 3600)}:${part(Math.floor(seconds / 60) % 60)}:${part(seconds % 60)}`
}
