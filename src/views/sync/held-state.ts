import { dequal } from 'dequal/lite'
import { applyEdit, type Change, type Edit, revertEdits, type ToldChange } from '../../core/changes/edit'
import { packEdits, unpackEdits } from '../../core/changes/packed'
import { prepareChange } from '../../core/changes/prepare'
import type { Problem } from '../../core/changes/problem'
import { affectedMaps } from '../../core/records/affected-maps'
import type { RecordByKind, RecordKind } from '../../core/records/kinds'
import { Records } from '../../core/records/records'
import { type FarTopic, type MapSnapshot, putSnapshot } from '../../core/records/snapshot'

/** How a change was committed: its number, and the maps on which it is seen; null for all of them. */
type Committed = Pick<ToldChange, 'number' | 'maps'>

/**
 * A change of this person that is shown on top of what is committed. It is waiting until the server has answered or told of it; then it
 * is committed, and ends when it is told with its edits, or when snapshots with its number or a later one have come of all open maps
 * on which it is seen, and of no open map something is known to be missing.
 */
interface Pending {
  change: Change
  /** The edits as they were applied here. */
  applied: Edit[]
  /** Null while it is waiting. */
  committed: Committed | null
}

/** How many committed changes are kept for replaying onto a snapshot that is older than what is held. */
const CHANGES_KEPT = 1_000

/**
 * What a browser holds of a collection: committed records of the open maps, with the person's own pending changes
 * replayed on top. Committed changes must come in order.
 */
export class HeldState {
  readonly records = new Records()
  readonly farTopics = new Map<string, FarTopic>()
  readonly openMaps = new Set<string>()
  private readonly pending: Pending[] = []
  /** The number of the last snapshot of each open map. */
  private readonly snapshots = new Map<string, number>()
  /** Open maps of which changes were told without their edits, with the number of the last one: a later snapshot is needed. */
  private readonly stale = new Map<string, number>()
  private readonly recent: ToldChange[] = []

  /** Applies a change of this person at once; refused where it cannot be. */
  perform(change: Change): { ok: true } | { ok: false; problem: Problem } {
    const prepared = prepareChange(this.records, change.edits, false, change.undoes !== null)
    if (!prepared.ok) return prepared
    this.pending.push({ change, applied: prepared.edits, committed: null })
    return { ok: true }
  }

  /** Takes a change of before that the server may not know yet: it is applied when the map is here to which it belongs. */
  restore(change: Change): void {
    this.beneathPending(() => this.pending.push({ change, applied: [], committed: null }))
  }

  /** The server has answered that it has committed a change. */
  answered(id: string, committed: Committed): void {
    const pending = this.pending.find(({ change }) => change.id === id)
    if (!pending) return
    pending.committed = committed
    if (this.isOver(pending)) this.drop(id)
  }

  /** Open maps of which more has been told than is here. */
  get staleMaps(): string[] {
    return [...this.stale.keys()]
  }

  private isOver({ committed }: Pending): boolean {
    if (!committed || this.stale.size > 0) return false
    const { number, maps } = committed
    return [...(maps ?? this.openMaps)].every(
      (map) => !this.openMaps.has(map) || (this.snapshots.get(map) ?? 0) >= number,
    )
  }

  /** Takes a pending change back, because it was refused or given up. */
  drop(id: string): void {
    if (this.pending.some(({ change }) => change.id === id)) this.beneathPending(() => {}, id)
  }

  /** Whether a record was made here by a change that the server has not told yet. */
  isMadeHere(kind: RecordKind, id: string): boolean {
    return this.pending.some(({ applied }) =>
      applied.some((edit) => edit.before === null && edit.kind === kind && edit.id === id),
    )
  }

  isPending(id: string): boolean {
    return this.pending.some(({ change }) => change.id === id)
  }

  /** Takes over committed changes; returns the open maps of which more is needed than these changes tell. */
  commit(changes: readonly ToldChange[]): Set<string> {
    const incomplete = new Set<string>()
    const rest = this.acknowledge(changes)
    if (rest.length === 0) return incomplete
    this.beneathPending(() => {
      for (const told of rest) {
        const change = this.unpacked(told)
        // Told without its edits it stays until a snapshot has them: what was written does not go away meanwhile.
        const own = this.pending.findIndex((pending) => pending.change.id === change.id)
        if (own >= 0 && change.edits) this.pending.splice(own, 1)
        else if (own >= 0) this.pending[own]!.committed = change
        this.applyTold(change, incomplete)
        this.remember(change)
      }
    })
    return incomplete
  }

  /**
   * Takes the person's own changes off the pending ones as long as they come back exactly as they were made here, in
   * their order: then the records are right as they are. Returns the changes that are left.
   */
  private acknowledge(changes: readonly ToldChange[]): readonly ToldChange[] {
    let done = 0
    // What is moved out of a map of which something is missing is looked at more closely.
    if (this.stale.size > 0) return changes
    for (const change of changes) {
      const [first] = this.pending
      if (first?.change.id !== change.id || !dequal(packEdits(first.applied), change.edits)) break
      this.pending.shift()
      this.remember({ ...change, edits: first.applied })
      done++
    }
    return changes.slice(done)
  }

  /** A change that was told without its edits, though it is seen on a map that is open here: that is asked for again. */
  private applyTold({ number, edits: told, maps }: ToldChange, incomplete: Set<string>): void {
    // A text that was reworded and is another here is not held, or was reworded before, where changes are replayed.
    const edits = told && unpackEdits(this.records, told).edits
    const created = new Set(edits?.flatMap(({ id, before }) => (before === null ? id : [])))
    const needs = (map: string) => {
      incomplete.add(map)
      this.stale.set(map, number)
    }
    for (const edit of edits ?? []) {
      // What comes from a map of which not all is known brings what is not known along.
      const from = edit.kind === 'topic' && edit.after.place ? this.records.get('topic', edit.id)?.place.map : undefined
      const to = edit.kind === 'topic' ? edit.after.place?.map : undefined
      if (from && to && from !== to && this.stale.has(from) && this.openMaps.has(to)) needs(to)
      this.applyCommitted(edit, incomplete)
      if (this.needsMore(edit, created)) for (const map of maps ?? []) if (this.openMaps.has(map)) incomplete.add(map)
    }
    if (!told) for (const map of maps ?? this.openMaps) if (this.openMaps.has(map)) needs(map)
  }

  /** Whether an edit leads to what is not held, so that an open map on which it is seen has to be asked for again. */
  private needsMore(edit: Edit, created: ReadonlySet<string>): boolean {
    const isKnown = (topic: string) => this.records.get('topic', topic) !== undefined || this.farTopics.has(topic)
    if (edit.kind === 'enclosure')
      return this.records.get('enclosure', edit.id)?.topics.every(isKnown) === false && !edit.after.trashed
    if (edit.kind !== 'topic') return false
    const { place, note } = edit.after
    // A branch that comes from elsewhere brings notes, files and links along.
    const before = edit.before?.place
    if (place && before && this.openMaps.has(place.map) && !this.openMaps.has(before.map)) return true
    if (note && !created.has(note)) return true
    return edit.before !== null && 'note' in edit.after && !isKnown(edit.id)
  }

  /** A change with its texts whole; as told without its edits where another text is held here than the one that was reworded. */
  private unpacked(told: ToldChange): ToldChange {
    if (!told.edits) return told
    const { edits, unread } = unpackEdits(this.records, told.edits)
    if (unread.length === 0) return { ...told, edits }
    return unread.some(({ kind, id }) => this.records.get(kind, id)) ? { ...told, edits: null } : told
  }

  private remember(change: ToldChange): void {
    this.recent.push(change)
    this.recent.splice(0, Math.max(0, this.recent.length - CHANGES_KEPT))
  }

  /**
   * Takes over a map as the server knows it. Changes after the snapshot that are here already are replayed on it. Returns
   * the open maps of which more is needed than these changes tell.
   */
  open(snapshot: MapSnapshot): Set<string> {
    const incomplete = new Set<string>()
    this.beneathPending(() => {
      for (const topic of [...this.records.topicsOf(snapshot.map)]) this.records.remove('topic', topic.id)
      putSnapshot(this.records, snapshot)
      for (const far of snapshot.farTopics) this.farTopics.set(far.id, far)
      this.openMaps.add(snapshot.map)
      this.snapshots.set(snapshot.map, snapshot.number)
      if ((this.stale.get(snapshot.map) ?? 0) <= snapshot.number) this.stale.delete(snapshot.map)
      for (const change of this.recent) if (change.number > snapshot.number) this.applyTold(change, incomplete)
    })
    return incomplete
  }

  /** Takes note of changes that were told before this window was opened: they are replayed on the maps that were kept before them. */
  heardBefore(changes: readonly ToldChange[]): void {
    for (const change of changes) this.remember(change)
  }

  /** Shows a map as it was kept. What it lacks is not known: it is stale until the server tells of it. */
  openKept(snapshot: MapSnapshot): void {
    const [first] = this.recent
    // Where some of what came after is missing, what came later is not shown without it.
    const isWhole = !first || snapshot.number >= first.number - 1
    this.open(isWhole ? snapshot : { ...snapshot, number: this.recent.at(-1)!.number })
    this.stale.set(snapshot.map, Math.max(snapshot.number, this.recent.at(-1)?.number ?? 0))
  }

  /** Lets go of a map that is not open to this person any more. */
  close(map: string): void {
    if (!this.openMaps.delete(map)) return
    this.snapshots.delete(map)
    this.stale.delete(map)
    this.beneathPending(() => {
      for (const topic of [...this.records.topicsOf(map)]) this.records.remove('topic', topic.id)
      this.records.remove('map', map)
    })
  }

  /** Takes over what is said of the collection itself, and its folders. */
  takeCollection(collection: RecordByKind['collection'], folders: readonly RecordByKind['folder'][]): void {
    this.beneathPending(() => {
      this.records.put('collection', collection)
      for (const folder of folders) this.records.put('folder', folder)
    })
  }

  /** Runs `work` on the committed records alone, then replays the pending changes. */
  private beneathPending(work: () => void, without?: string): void {
    for (let i = this.pending.length - 1; i >= 0; i--) revertEdits(this.records, this.pending[i]!.applied)
    work()
    const again = this.pending.splice(0)
    for (const pending of again) {
      const { change } = pending
      if (change.id === without || this.isOver(pending)) continue
      // What can no longer be done here is still sent: the server decides, and says so.
      const prepared = prepareChange(this.records, change.edits, false, change.undoes !== null)
      this.pending.push({ ...pending, applied: prepared.ok ? prepared.edits : [] })
    }
  }

  private applyCommitted(edit: Edit, incomplete: Set<string>): void {
    if (edit.before === null || this.records.get(edit.kind, edit.id)) applyEdit(this.records, edit)
    else if (edit.kind === 'topic' && edit.after.place && this.openMaps.has(edit.after.place.map))
      incomplete.add(edit.after.place.map)
    if (edit.kind === 'topic' && edit.after.text !== undefined) {
      const far = this.farTopics.get(edit.id)
      if (far) this.farTopics.set(edit.id, { ...far, text: edit.after.text })
    }
    if (edit.kind === 'topic' && edit.after.place) {
      const far = this.farTopics.get(edit.id)
      if (far) this.farTopics.set(edit.id, { ...far, map: edit.after.place.map })
    }
    if (edit.kind === 'crosslink') this.noteFarEnds(edit.id, incomplete)
  }

  /** A link to something that is not known here: the map at its near end must be asked for again. */
  private noteFarEnds(id: string, incomplete: Set<string>): void {
    const link = this.records.get('crosslink', id)
    if (!link) return
    const isKnown = (topic: string) => this.records.get('topic', topic) !== undefined || this.farTopics.has(topic)
    const { to } = link
    const isEndKnown = to.kind === 'map' || (to.kind === 'topic' ? isKnown(to.id) : this.records.get(to.kind, to.id))
    if (isKnown(link.from) && isEndKnown) return
    const maps = affectedMaps(this.records, 'crosslink', link)
    for (const map of maps === 'all' ? this.openMaps : maps) if (this.openMaps.has(map)) incomplete.add(map)
  }
}
