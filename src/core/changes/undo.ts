import { dequal } from 'dequal/lite'
import type { ChangeId } from '../records/ids'
import type { RecordByKind, RecordKind } from '../records/kinds'
import type { Records } from '../records/records'
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
 * A new change that takes back those fields of `change` whose value is still the one it set. Records that it created
 * are trashed, the outermost only: what hangs inside goes with it. Undoing an undo is a redo.
 */
export function undoChange(records: Records, change: Change, id: ChangeId): Undo {
  const edits: Edit[] = []
  const leftAlone: Undo['leftAlone'] = []
  const created = new Set(change.edits.filter((edit) => edit.before === null).map((edit) => edit.id))
  for (let i = change.edits.length - 1; i >= 0; i--) {
    const edit = change.edits[i]!
    const current = records.get(edit.kind, edit.id)
    if (!current) continue
    if (edit.before === null) {
      const container = containerOf(edit.kind, current)
      if (current.trashed || edit.kind === 'file' || (container && created.has(container))) continue
      edits.push({ kind: edit.kind, id: edit.id, before: { trashed: false }, after: { trashed: true } } as Edit)
      continue
    }
    const before: Record<string, unknown> = {}
    const after: Record<string, unknown> = {}
    for (const [field, old] of Object.entries(edit.before)) {
      const now = (current as unknown as Record<string, unknown>)[field]
      const set = (edit.after as Record<string, unknown>)[field]
      if (dequal(now, set)) {
        before[field] = now
        after[field] = old
      } else if (!dequal(now, old)) leftAlone.push({ kind: edit.kind, id: edit.id, field })
    }
    if (Object.keys(after).length > 0) edits.push({ kind: edit.kind, id: edit.id, before, after } as Edit)
  }
  const label = change.undoes ? actName(change.label) : `${PREFIX}${actName(change.label)}`
  return { change: edits.length > 0 ? { id, label, edits, undoes: change.id } : null, leftAlone }
}

/** The record that a record hangs in: trashing that one is enough. */
function containerOf(kind: RecordKind, record: RecordByKind[RecordKind]): string | null {
  if (kind === 'topic') {
    const { place } = record as RecordByKind['topic']
    return place.parent ?? place.map
  }
  if (kind === 'crosslink') return (record as RecordByKind['crosslink']).from
  if (kind === 'weblink' || kind === 'attachment') return (record as RecordByKind['weblink']).topic
  return null
}

/**
 * What a person can undo and redo, latest last, from their changes in the order in which they were made.
 * A change that undoes the top of one list moves to the other; any other change empties the redo list.
 */
export function undoLists(changes: readonly Change[]): { undo: Change[]; redo: Change[] } {
  const undo: Change[] = []
  const redo: Change[] = []
  for (const change of changes) {
    if (change.undoes && undo.at(-1)?.id === change.undoes) {
      undo.pop()
      redo.push(change)
    } else if (change.undoes && redo.at(-1)?.id === change.undoes) {
      redo.pop()
      undo.push(change)
    } else {
      undo.push(change)
      redo.length = 0
    }
  }
  return { undo, redo }
}
