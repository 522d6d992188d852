import Papa from 'papaparse'

/** What stands in a column, as far as all its cells agree: only that can be drawn along an axis. */
type ColumnKind = 'number' | 'date' | 'text'

interface TableColumn {
  /** From the first row; never empty. */
  name: string
  kind: ColumnKind
}

export interface TableFile {
  columns: TableColumn[]
  /** The rows below the first, each as long as there are columns. */
  rows: string[][]
  /** Whether there are more rows, or columns, than are read. */
  isCut: boolean
}

/** Most rows and columns that are read. */
const [MOST_ROWS, MOST_COLUMNS] = [5_000, 60]

/**
 * Reads comma-separated values (RFC 4180), also with semicolons or tabs between them; the first row names the columns. Never fails: a
 * text that is no table has one column. Linear.
 */
export function readTable(text: string): TableFile {
  const read = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), {
    skipEmptyLines: 'greedy',
    preview: MOST_ROWS + 2,
    delimitersToGuess: [',', ';', '\t', '|'],
  }).data
  const [head = [], ...rest] = read
  const widest = read.reduce((most, row) => Math.max(most, row.length), 0)
  const count = Math.min(widest, MOST_COLUMNS)
  const rows = rest.slice(0, MOST_ROWS).map((row) => Array.from({ length: count }, (_, at) => (row[at] ?? '').trim()))
  const columns = Array.from({ length: count }, (_, at) => ({
    name: head[at]?.trim() || `Column ${at + 1}`,
    kind: kindOf(rows.map((row) => row[at]!)),
  }))
  return { columns, rows, isCut: rest.length > MOST_ROWS || widest > MOST_COLUMNS }
}

function kindOf(cells: readonly string[]): ColumnKind {
  const written = cells.filter((cell) => cell !== '')
  if (written.length === 0) return 'text'
  if (written.every((cell) => numberIn(cell) !== null)) return 'number'
  return written.every((cell) => timeIn(cell) !== null) ? 'date' : 'text'
}

/** A number as it is written in tables: with a point or a comma, and a sign; null for all else. */
export function numberIn(cell: string): number | null {
  if (!/^[-+−]?(?:\d{1,15}(?:[.,]\d{0,15})?|[.,]\d{1,15})(?:e[-+]?\d{1,3})?$/i.test(cell)) return null
  return Number(cell.replace('−', '-').replace(',', '.'))
}

/** A day, or a moment of it, written as in ISO 8601: as ms since 1970 in UTC; null for all else. */
export function timeIn(cell: string): number | null {
  const [, day = '', hours = '00', minutes = '00'] =
    /^(\d{4}-\d{2}-\d{2})(?:[T ](\d{2}):(\d{2})(?::\d{2}(?:\.\d{1,9})?)?(?:Z|[+-]\d{2}:?\d{2})?)?$/.exec(cell) ?? []
  const at = Date.parse(`${day}T${hours}:${minutes}:00Z`)
  // The thirtieth of February is read as a day of March.
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(day) ? at : null
}

/** What of a table is drawn: along which column, and which columns of numbers. */
export interface ChartChoice {
  along: number
  drawn: number[]
}

/**
 * What is likely meant to be drawn: along the first column of days, else along the first column; of the other columns those of
 * numbers, six at most, without those that say the same in every row where others do not. Null where there is none.
 */
export function proposeChart({ columns, rows }: TableFile): ChartChoice | null {
  if (rows.length < 2) return null
  const dates = columns.findIndex(({ kind }) => kind === 'date')
  const along = Math.max(0, dates)
  const numbers = columns.flatMap(({ kind }, at) => (kind === 'number' && at !== along ? at : []))
  const changing = numbers.filter((at) => rows.some((row) => row[at] !== rows[0]![at]))
  const drawn = (changing.length > 0 ? changing : numbers).slice(0, 6)
  return drawn.length > 0 ? { along, drawn } : null
}
