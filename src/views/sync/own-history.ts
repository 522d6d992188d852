import type { Change, Edit } from '../../core/changes/edit'
import { actName, undoLists } from '../../core/changes/undo'
import type { ChangeId } from '../../core/records/ids'

/** A change of this person; of large ones that others made room for, the edits are known to the server alone. */
export type OwnChange = Omit<Change, 'edits'> & { edits: Edit[] | null; step?: ChangeId | null }

/** What this person did in a collection, here or in another tab, in the order in which it was made. */
export class OwnHistory {
  private changes: OwnChange[] = []

  /** Puts what the server knows from before in front of what was done here. */
  begin(before: readonly OwnChange[]): void {
    const known = new Set(before.map(({ id }) => id))
    this.changes = [...before, ...this.changes.filter(({ id }) => !known.has(id))]
  }

  /**
   * Adds a change, or takes the form in which it was committed. Of several that are one step the first stands for all, and the
   * server takes them back together.
   */
  note(told: OwnChange): void {
    if (told.step && told.step !== told.id) return
    const change = told.step ? { ...told, edits: null } : told
    const at = this.changes.findIndex(({ id }) => id === change.id)
    if (at < 0) this.changes.push(change)
    else this.changes[at] = { ...change, edits: change.edits ?? this.changes[at]!.edits }
  }

  has(id: string): boolean {
    return this.changes.some((change) => change.id === id)
  }

  forget(id: string): void {
    this.changes = this.changes.filter((change) => change.id !== id)
  }

  /** What is undone and redone next. */
  get next(): { undo: OwnChange | null; redo: OwnChange | null } {
    const { undo, redo } = undoLists(this.changes)
    return { undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null }
  }

  /** The names of the last steps that can be undone or redone, the next one first. */
  steps(which: 'undo' | 'redo', most: number): string[] {
    const steps = undoLists(this.changes)[which].slice(-most).reverse()
    return steps.map(({ label }) => actName(label))
  }
}
