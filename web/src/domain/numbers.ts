const NUMBER = /^\s*(?:(\d+)\s+)?(\d+(?:[.,]\d+)?)(?:\s*\/\s*(\d+))?\s*(?:hz|mm|in|"|″|%|min)?\s*$/i

/** A plain number as people type it: '14', '5 1/2', '14,5', '356 mm'; null where it is something else, such as a note. */
export function numberTyped(typed: string): number | null {
  const found = NUMBER.exec(typed)
  if (!found) return null
  const [, whole, top = '', bottom] = found
  if (whole !== undefined && bottom === undefined) return null
  const value = Number(top.replace(',', '.')) / (bottom === undefined ? 1 : Number(bottom))
  return Number.isFinite(value) ? Number(whole ?? 0) + value : null
}
