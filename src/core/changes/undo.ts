import { dequal } from 'dequal/lite'
import type { ChangeId, MapId } from '../records/ids'
import type { Joining } from '../records/kind'
import { type AnyRecord, kinds, type RecordKind, referencesTo } from '../records/kinds'
import type { Records } from '../records/records'
import { endsOf } from '../records/reference-path'
import { mergeText } from '../text/merge-text'
import type { Change, Edit, PackedEdit } from './edit'
import { isOfLines } from './join'

export interface Undo {
  /** Null when nothing of the change is left to take back. */
  change: Change | null
  /** Records of which somebody has changed a field since, which is left as it is; those made by the change stay as a whole then. */
  leftAlone: { kind: RecordKind; id: string; field: string }[]
}

const PREFIX = 'Undo: '

/** The name of an act, whether it is being done, undone or redone. */
export const actName = (label: string) => (label.startsWith(PREFIX) ? label.slice(PREFIX.length) : label)

/**
 * A new change that takes back those fields of `change` whose value is still the one it set; of fields that are joined, what
 * it brought in or took out. Records that it created are trashed, the outermost only: what is inside goes with it. One that has got
 * other work since stays, with what it stands in: other words, or something that was put into it. Its edit shows the words that were
 * seen, for `stillTakenBack`. Undoing an undo is a redo. O(edits, and what stands in what was created).
 */
export function undoChange(records: Records, change: Change, id: ChangeId): Undo {
  const edits: Edit[] = []
  const leftAlone: Undo['leftAlone'] = []
  const keeping = keptOf(records, change.edits)
  const isKept = (id: unknown) => typeof id === 'string' && keeping.has(id)
  const created = new Set(
    change.edits.filter(({ before, id }) => before === null && !keeping.has(id)).map((edit) => keyOf(edit)),
  )
  for (let i = change.edits.length - 1; i >= 0; i--) {
    const edit = change.edits[i]!
    const current = records.get(edit.kind, edit.id)
    if (!current) continue
    if (edit.before === null) {
      const field = keeping.get(edit.id)
      if (field) leftAlone.push({ kind: edit.kind, id: edit.id, field })
      if (field || current.trashed || edit.kind === 'file' || goesAlong(records, edit.kind, current, created)) continue
      const before = { ...wordsOf(edit.kind, current), trashed: false }
      edits.push({ kind: edit.kind, id: edit.id, before, after: { trashed: true } } as Edit)
      continue
    }
    const before: Record<string, unknown> = {}
    const after: Record<string, unknown> = {}
    for (const [field, old] of Object.entries(edit.before)) {
      const now = (current as unknown as Record<string, unknown>)[field]
      const set = (edit.after as Record<string, unknown>)[field]
      if (isKept(set)) leftAlone.push({ kind: edit.kind, id: edit.id, field })
      else if (dequal(now, set) || canTakeOut(kinds[edit.kind].joins[field], set, now, old)) {
        before[field] = set
        after[field] = old
      } else if (!dequal(now, old)) leftAlone.push({ kind: edit.kind, id: edit.id, field })
    }
    if (Object.keys(after).length > 0) edits.push({ kind: edit.kind, id: edit.id, before, after } as Edit)
  }
  const label = change.undoes ? actName(change.label) : `${PREFIX}${actName(change.label)}`
  return { change: edits.length > 0 ? { id, label, edits, undoes: change.id } : null, leftAlone }
}

/**
 * Of the edits of an undo, what can still be done when it is committed: others may have been there since it was made. A field that is
 * not as the undo saw it is left alone, unless what it takes out can be taken out of what is there; and so is a record that has
 * other words by now. O(edits).
 */
export function stillTakenBack(records: Records, edits: readonly Edit[]): Edit[] {
  const asSeen = ({ kind, id, before, after }: Edit): boolean =>
    Object.entries(before ?? {}).every(
      ([field, seen]) => field in after || dequal(fieldOf(records, kind, id, field), seen),
    )
  const keeping = new Set(edits.filter((edit) => !asSeen(edit)).map(({ id }) => id))
  return edits.flatMap((edit) => {
    if (edit.before === null) return edit
    if (keeping.has(edit.id)) return []
    const before: Record<string, unknown> = {}
    const after: Record<string, unknown> = {}
    for (const [field, wanted] of Object.entries(edit.after)) {
      const seen = (edit.before as Record<string, unknown>)[field]
      const now = fieldOf(records, edit.kind, edit.id, field)
      if (typeof seen === 'string' && keeping.has(seen)) continue
      if (!dequal(now, seen) && !canTakeOut(kinds[edit.kind].joins[field], seen, now, wanted)) continue
      before[field] = seen
      after[field] = wanted
    }
    return Object.keys(after).length > 0 ? ({ kind: edit.kind, id: edit.id, before, after } as Edit) : []
  })
}

/** Whether something that a change was to set was not set when it was stored: others have changed it since. O(edits). */
export function leavesOut(sent: Change, stored: { edits: readonly PackedEdit[] }): boolean {
  const done = new Map(stored.edits.map((edit) => [keyOf(edit), edit.after]))
  return sent.edits.some((edit) => {
    const set = done.get(keyOf(edit))
    return Object.keys(edit.after).some((field) => !set || !(field in set))
  })
}

/** Whether all fields that edits set are still as whoever made them saw them, but for those that are joined. O(edits). */
export const areAsSeen = (records: Records, edits: readonly Edit[]): boolean =>
  edits.every(({ kind, id, before }) =>
    Object.entries(before ?? {}).every(
      ([field, seen]) => field in kinds[kind].joins || dequal(fieldOf(records, kind, id, field), seen),
    ),
  )

const fieldOf = (records: Records, kind: RecordKind, id: string, field: string): unknown =>
  (records.get(kind, id) as unknown as Record<string, unknown> | undefined)?.[field]

/** The fields of a record in which people write; a topic's note is one. */
const wordFields = (kind: RecordKind): string[] => [
  ...Object.entries(kinds[kind].joins).flatMap(([field, joining]) => (isOfLines(joining) ? field : [])),
  ...(kind === 'topic' ? ['note'] : []),
]

const wordsOf = (kind: RecordKind, record: AnyRecord): Record<string, unknown> =>
  Object.fromEntries(wordFields(kind).map((field) => [field, (record as unknown as Record<string, unknown>)[field]]))

/**
 * What a change has created and what has got other work since, with the field that tells it: by its own words, by what was put into it,
 * and all in which such a record stands.
 */
function keptOf(records: Records, edits: readonly Edit[]): Map<string, string> {
  const kept = new Map<string, string>()
  const touched = new Set(edits.map(keyOf))
  const created = new Map(edits.flatMap((edit) => (edit.before === null ? [[keyOf(edit), edit] as const] : [])))
  const keep = (edit: Edit, field: string) => {
    const record = records.get(edit.kind, edit.id)
    if (!record || record.trashed || kept.has(edit.id)) return
    kept.set(edit.id, field)
    for (const reference of kinds[edit.kind].references)
      for (const end of reference.hold === 'inside' ? endsOf(record, reference) : []) {
        const around = created.get(keyOf(end))
        if (around) keep(around, field)
      }
    for (const { from, reference } of referencesTo(edit.kind))
      if (reference.hold === 'carries')
        for (const { id } of records.referring(from, reference, edit)) {
          const carrier = created.get(keyOf({ kind: from, id }))
          if (carrier) keep(carrier, field)
        }
  }
  for (const edit of created.values()) {
    const record = records.get(edit.kind, edit.id)
    if (!record || record.trashed) continue
    const given = edit.after as Record<string, unknown>
    const field = wordFields(edit.kind).find((name) => !dequal(fieldOf(records, edit.kind, edit.id, name), given[name]))
    if (field) keep(edit, field)
    for (const { from, reference } of referencesTo(edit.kind)) {
      if (reference.hold !== 'inside') continue
      for (const inside of records.referring(from, reference, edit))
        if (!inside.trashed && !touched.has(keyOf({ kind: from, id: inside.id }))) keep(edit, reference.path)
    }
  }
  return kept
}

const keyOf = ({ kind, id }: { kind: string; id: string }): string => `${kind} ${id}`

/** Whether what a change did to a field can be taken out of what others have made of it since. */
function canTakeOut(joining: Joining | undefined, set: unknown, now: unknown, old: unknown): boolean {
  if (!joining || dequal(now, old)) return false
  if (!isOfLines(joining)) return true
  return typeof set === 'string' && typeof now === 'string' && typeof old === 'string'
    ? !mergeText(set, now, old).overlapping
    : false
}

/** Whether trashing another record that was created too is enough: that in which this one is, or that carries it. */
function goesAlong(records: Records, kind: RecordKind, record: AnyRecord, created: ReadonlySet<string>): boolean {
  const isInside = kinds[kind].references.some((reference) => {
    const ends = reference.hold === 'inside' ? endsOf(record, reference) : []
    return ends.length > 0 && ends.every((end) => created.has(keyOf(end)))
  })
  return (
    isInside ||
    referencesTo(kind).some(
      ({ from, reference }) =>
        reference.hold === 'carries' &&
        [...records.referring(from, reference, { kind, id: record.id })].some(({ id }) =>
          created.has(keyOf({ kind: from, id })),
        ),
    )
  )
}

/** What is known of a change for undoing: on which maps something of it is seen, null for all of them. */
export interface Undoable extends Pick<Change, 'id' | 'undoes'> {
  maps: readonly MapId[] | null
}

/** Whether something of a change is seen on one of some maps; null are all maps. What is seen on no map belongs everywhere. */
export const isSeenOn = ({ maps }: Undoable, shown: readonly string[] | null): boolean =>
  shown === null || maps === null || maps.length === 0 || maps.some((map) => shown.includes(map))

/**
 * What a person can undo and redo, latest last, from their changes in the order in which they were made. A change that undoes one
 * of a list moves it to the other, wherever it stands there; any other change takes out of the redo list what is seen on the same
 * maps. O(changes times those that can be redone).
 */
export function undoLists<Known extends Undoable>(changes: readonly Known[]): { undo: Known[]; redo: Known[] } {
  const undo: Known[] = []
  let redo: Known[] = []
  for (const change of changes) {
    const at = (list: readonly Known[]) => (change.undoes ? list.findLastIndex(({ id }) => id === change.undoes) : -1)
    const [undone, redone] = [at(undo), at(redo)]
    if (undone >= 0) {
      undo.splice(undone, 1)
      redo.push(change)
    } else if (redone >= 0) {
      redo.splice(redone, 1)
      undo.push(change)
    } else {
      undo.push(change)
      redo = redo.filter((other) => !isSeenOn(other, change.maps))
    }
  }
  return { undo, redo }
}
