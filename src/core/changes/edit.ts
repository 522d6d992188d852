import { dequal } from 'dequal/lite'
import { z } from 'zod'
import { ChangeId, type MapId } from '../records/ids'
import { RECORD_KINDS, type RecordByKind, type RecordKind } from '../records/kinds'
import type { Records } from '../records/records'
import { storedText } from '../records/text'

/**
 * One record's part of a change. `before` and `after` hold only the fields that differ; `before: null` creates the
 * record, and then `after` holds all of its fields. Records are never deleted: they are trashed.
 */
export type EditOf<K extends RecordKind> = {
  kind: K
  id: string
  before: Partial<RecordByKind[K]> | null
  after: Partial<RecordByKind[K]>
}
export type Edit = { [K in RecordKind]: EditOf<K> }[RecordKind]

/** Everything that alters a collection: an id, a label a person understands, and edits. */
export interface Change {
  id: ChangeId
  label: string
  edits: Edit[]
  /** The change that this one takes back. */
  undoes: ChangeId | null
}

/** An edit as it travels and is stored: a long text that was reworded is told by what differs; see `packed.ts`. */
export interface PackedEdit {
  kind: RecordKind
  id: string
  before: Readonly<Record<string, unknown>> | null
  after: Readonly<Record<string, unknown>>
}

/** A change as the server stored it: numbered without gaps, with the edits that really happened. */
export interface CommittedChange extends Omit<Change, 'edits'> {
  edits: PackedEdit[]
  number: number
  person: string
  personName: string
  /** UTC instant in ISO 8601. */
  at: string
}

/**
 * A committed change as it is told to a browser: with its edits where the browser has one of the maps open on which
 * something of it is seen, else only that it was.
 */
export interface ToldChange extends Omit<CommittedChange, 'edits'> {
  edits: PackedEdit[] | null
  /** Null for all maps. */
  maps: MapId[] | null
  /** Where several changes are one step of history: the id of the first. */
  step: ChangeId | null
}

/** Most edits of one change. */
const MOST_EDITS = 50_000

const RecordId = z.uuid().lowercase()
const fields = z.record(z.string(), z.unknown())

/** A change as it arrives over the wire. What the fields hold is checked when the edits are applied. */
export const WireChange = z.strictObject({
  id: ChangeId,
  label: storedText(500).min(1),
  edits: z
    .array(z.strictObject({ kind: z.enum(RECORD_KINDS), id: RecordId, before: fields.nullable(), after: fields }))
    .min(1)
    .max(MOST_EDITS),
  undoes: ChangeId.nullable(),
})

/** Applies one committed edit. Throws a RangeError when the record is not there. */
export function applyEdit(records: Records, edit: Edit): void {
  const { kind, id, before, after } = edit
  if (before === null) records.put(kind, after as never)
  else records.put(kind, { ...records.need(kind, id), ...after } as never)
}

export function applyEdits(records: Records, edits: readonly Edit[]): void {
  for (const edit of edits) applyEdit(records, edit)
}

/** Puts the records back as they were before `edits`, which must be the last that were applied to them. */
export function revertEdits(records: Records, edits: readonly Edit[]): void {
  for (let i = edits.length - 1; i >= 0; i--) {
    const { kind, id, before } = edits[i]!
    if (before === null) records.remove(kind, id)
    else records.put(kind, { ...records.need(kind, id), ...before } as never)
  }
}

/** The edit that turns one version of a record into another; null when nothing differs. */
export function editBetween<K extends RecordKind>(
  kind: K,
  from: RecordByKind[K],
  to: RecordByKind[K],
): EditOf<K> | null {
  const before: Partial<RecordByKind[K]> = {}
  const after: Partial<RecordByKind[K]> = {}
  let differs = false
  for (const field of Object.keys(to) as (keyof RecordByKind[K])[]) {
    if (dequal(from[field], to[field])) continue
    before[field] = from[field]
    after[field] = to[field]
    differs = true
  }
  return differs ? { kind, id: from.id, before, after } : null
}

/** One edit a record: later edits of the same record are folded into its first one. */
export function joinEdits(edits: readonly Edit[]): Edit[] {
  const first = new Map<string, Edit>()
  for (const edit of edits) {
    const key = `${edit.kind} ${edit.id}`
    const known = first.get(key)
    if (!known) first.set(key, edit)
    else
      first.set(key, {
        ...known,
        before: known.before === null ? null : { ...edit.before, ...known.before },
        after: { ...known.after, ...edit.after },
      } as Edit)
  }
  return [...first.values()]
}
