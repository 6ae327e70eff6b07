const GROUPED = new Intl.NumberFormat('en')

/** A count with its thousands parted, as 12,000; up to four digits as they are. */
export const counted = (count: number): string => (count < 10_000 ? String(count) : GROUPED.format(count))
