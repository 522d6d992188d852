import type { RecordKind } from '../../core/records/kinds'

/**
 * Where a reference stands in the table: a column; one whose elements it is, for lists; or one for each kind of far end.
 */
type Column = string | { each: string } | { [kind: string]: string }

/** The statements of one kind of record. `$1` is the collection throughout. */
export interface Table<K extends RecordKind> {
  kind: K
  /** SELECT … for the records of a collection, to be narrowed by a further condition. Rows have the form of records. */
  select: string
  /** Writes the records in the JSON array `$2`, new ones and known ones alike. */
  upsert: string
  /** The column of each reference of the kind, by its path. */
  columns: { [path: string]: Column }
}

/** The picture behind a map or a whole collection, inside their looks. */
export const BACKGROUND_PICTURE = "(look->'background'->>'picture')::uuid"
