const GROUPED = new Intl.NumberFormat('en')

/** A count with its thousands parted, as 12,000; up to four digits as they are. */
export const counted = (count: number): string => (count < 10_000 ? String(count) : GROUPED.format(count))

/** '1 month', '3 months'; where the plural is not with an s it is said. The one place that knows. */
export const many = (count: number, one: string, more = `${one}s`): string =>
  `${counted(count)} ${count === 1 ? one : more}`
