import type { Change, Edit, PackedEdit } from '../../core/changes/edit'
import { isPacked } from '../../core/changes/packed'
import { actName, isSeenOn, type Undoable, undoLists } from '../../core/changes/undo'
import type { ChangeId, MapId } from '../../core/records/ids'

/** A change of this person; of large ones that others made room for, the edits are known to the server alone. */
export type OwnChange = Omit<Change, 'edits'> & Undoable & { edits: Edit[] | null; step?: ChangeId | null }

/** The name of a step that can be undone or redone, and a map on which it is seen where that is not one of those shown. */
export interface NamedStep {
  id: ChangeId
  name: string
  elsewhere: MapId | null
}

const wholeOf = (edits: PackedEdit[] | null): Edit[] | null => (edits && !isPacked(edits) ? (edits as Edit[]) : null)

/** What this person did in a collection, here or in another tab, in the order in which it was made. */
export class OwnHistory {
  private changes: OwnChange[] = []
  /** On which maps steps were made here, beside those on which something of them is seen. */
  private readonly madeOn = new Map<string, readonly string[] | null>()
  /** Changes that others have joined as one step: the server takes them back together. */
  private readonly joined = new Set<string>()
  private lists: ReturnType<typeof undoLists<OwnChange>> | null = null

  /** Puts what the server knows from before in front of what was done here. */
  begin(before: readonly OwnChange[]): void {
    const known = new Set(before.map(({ id }) => id))
    this.set([...before, ...this.changes.filter(({ id }) => !known.has(id))])
  }

  private set(changes: OwnChange[]): void {
    this.changes = changes
    this.lists = null
  }

  /**
   * Adds a change, or takes the form in which it was committed. Of several that are one step the first stands for all, and the
   * server takes them back together. What is packed was made here as it was stored, or elsewhere, and then the server takes it back.
   */
  note(told: Omit<OwnChange, 'edits'> & { edits: PackedEdit[] | null }, madeOn?: readonly string[] | null): void {
    if (madeOn !== undefined) this.madeOn.set(told.step ?? told.id, madeOn)
    if (told.step) this.joined.add(told.step)
    const first = told.step ?? told.id
    const at = this.changes.findIndex(({ id }) => id === first)
    const known = this.changes[at]
    if (first === told.id) {
      const edits = this.joined.has(first) ? null : (wholeOf(told.edits) ?? known?.edits ?? null)
      if (known) this.changes[at] = { ...told, edits }
      else this.changes.push({ ...told, edits })
    } else if (known) this.changes[at] = { ...known, edits: null }
    this.lists = null
  }

  /** Takes note that a change that is still to come belongs to the maps that are shown. */
  willBeMade(id: string, madeOn: readonly string[] | null): void {
    this.madeOn.set(id, madeOn)
  }

  /** Takes the edits of a change that is known as they were committed. */
  noteEdits({ id, edits }: { id: string; edits: PackedEdit[] }): void {
    const known = this.changes.find((change) => change.id === id)
    if (known && !this.joined.has(id)) known.edits = wholeOf(edits) ?? known.edits
  }

  has(id: string): boolean {
    return this.changes.some((change) => change.id === id)
  }

  forget(id: string): void {
    this.set(this.changes.filter((change) => change.id !== id))
  }

  /** What can be undone or redone, latest last. */
  private list(which: 'undo' | 'redo'): readonly OwnChange[] {
    this.lists ??= undoLists(this.changes)
    return this.lists[which]
  }

  /** Whether a step belongs to what is shown: something of it is seen there, or it was done there. */
  private belongsTo(change: OwnChange, shown: readonly string[] | null): boolean {
    const madeOn = this.madeOn.get(change.id)
    return isSeenOn(change, shown) || madeOn === null || madeOn?.some((map) => shown?.includes(map)) === true
  }

  /** What is undone or redone next: the latest of what belongs to the maps that are shown, null for all of them. */
  next(which: 'undo' | 'redo', shown: readonly string[] | null): OwnChange | null {
    return this.list(which).findLast((change) => this.belongsTo(change, shown)) ?? null
  }

  /** The last steps that can be undone or redone, the next one first. */
  steps(which: 'undo' | 'redo', shown: readonly string[] | null, most: number): NamedStep[] {
    const steps = this.list(which).slice(-most).reverse()
    return steps.map((step) => ({
      id: step.id,
      name: actName(step.label),
      elsewhere: this.belongsTo(step, shown) ? null : (step.maps?.[0] ?? null),
    }))
  }
}
