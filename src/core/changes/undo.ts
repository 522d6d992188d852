import { dequal } from 'dequal/lite'
import type { ChangeId, MapId } from '../records/ids'
import type { Joining } from '../records/kind'
import { type AnyRecord, kinds, type RecordKind, referencesTo } from '../records/kinds'
import type { Records } from '../records/records'
import { endsOf } from '../records/reference-path'
import { mergeText } from '../text/merge-text'
import type { Change, Edit } from './edit'

export interface Undo {
  /** Null when nothing of the change is left to take back. */
  change: Change | null
  /** Records of which somebody has changed a field since; that field is left as it is. */
  leftAlone: { kind: RecordKind; id: string; field: string }[]
}

const PREFIX = 'Undo: '

/** The name of an act, whether it is being done, undone or redone. */
export const actName = (label: string) => (label.startsWith(PREFIX) ? label.slice(PREFIX.length) : label)

/**
 * A new change that takes back those fields of `change` whose value is still the one it set; of fields that are joined, what
 * it brought in or took out. Records that it created are trashed, the outermost only: what is inside goes with it.
 * Undoing an undo is a redo. O(edits).
 */
export function undoChange(records: Records, change: Change, id: ChangeId): Undo {
  const edits: Edit[] = []
  const leftAlone: Undo['leftAlone'] = []
  const created = new Set(change.edits.filter(({ before }) => before === null).map((edit) => keyOf(edit)))
  for (let i = change.edits.length - 1; i >= 0; i--) {
    const edit = change.edits[i]!
    const current = records.get(edit.kind, edit.id)
    if (!current) continue
    if (edit.before === null) {
      if (current.trashed || edit.kind === 'file' || goesAlong(records, edit.kind, current, created)) continue
      edits.push({ kind: edit.kind, id: edit.id, before: { trashed: false }, after: { trashed: true } } as Edit)
      continue
    }
    const before: Record<string, unknown> = {}
    const after: Record<string, unknown> = {}
    for (const [field, old] of Object.entries(edit.before)) {
      const now = (current as unknown as Record<string, unknown>)[field]
      const set = (edit.after as Record<string, unknown>)[field]
      if (dequal(now, set) || canTakeOut(kinds[edit.kind].joins[field], set, now, old)) {
        before[field] = set
        after[field] = old
      } else if (!dequal(now, old)) leftAlone.push({ kind: edit.kind, id: edit.id, field })
    }
    if (Object.keys(after).length > 0) edits.push({ kind: edit.kind, id: edit.id, before, after } as Edit)
  }
  const label = change.undoes ? actName(change.label) : `${PREFIX}${actName(change.label)}`
  return { change: edits.length > 0 ? { id, label, edits, undoes: change.id } : null, leftAlone }
}

const keyOf = ({ kind, id }: { kind: string; id: string }): string => `${kind} ${id}`

/** Whether what a change did to a field can be taken out of what others have made of it since. */
function canTakeOut(joining: Joining | undefined, set: unknown, now: unknown, old: unknown): boolean {
  if (!joining || dequal(now, old)) return false
  if (joining !== 'lines') return true
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
