import type { RecordKind } from '../../core/records/kinds'

/** The statements of one kind of record. `$1` is the collection throughout. */
export interface Table<K extends RecordKind> {
  kind: K
  /** SELECT … for the records of a collection, to be narrowed by a further condition. Rows have the form of records. */
  select: string
  /** Writes the records in the JSON array `$2`, new ones and known ones alike. */
  upsert: string
}
