import type { Schemas } from '../../api/client'

/** By number of the column, the field it says; empty for none. */
export type Chosen = Record<string, string>

/** The columns with one changed; a field another column said goes from there, as it cannot be said twice. */
export function nextColumns(columns: Schemas['ColumnSeen'][], column: number, field: string): Chosen {
  return Object.fromEntries(
    columns.map((each, n) => [
      String(n),
      n === column ? field : each.field === field && field ? '' : each.field,
    ]),
  )
}
