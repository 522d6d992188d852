import { z } from 'zod'
import { SECTIONS } from './sheet-sections'

const KEY = 'folvet-columns'

/** Which columns stood beside the map, and which sections of the sheet were unfolded. */
const Columns = z.object({ leftOpen: z.boolean(), sheetOpen: z.boolean(), sections: z.array(z.enum(SECTIONS)) })
type Columns = z.infer<typeof Columns>

/** The columns as they were left in this tab, also over a reload; null where that is not known. */
export function lastColumns(): Columns | null {
  try {
    return Columns.parse(JSON.parse(sessionStorage.getItem(KEY) ?? 'null'))
  } catch {
    return null
  }
}

export function rememberColumns(columns: { [K in keyof Columns]: Readonly<Columns[K]> }): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify(columns))
  } catch {
    // Without room for it they stand as at the beginning the next time.
  }
}
