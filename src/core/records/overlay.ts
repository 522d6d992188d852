import type { AnyRecord, RecordByKind, RecordKind } from './kinds'
import { hangs } from './place'
import type { Ranks } from './ranks'
import { Records, ranksOf } from './records'
import type { TopicRecord } from './topic'

/**
 * Records as they would be with some of them changed, over others that stay as they are: what a command works on. What is
 * put here covers the record beneath; nothing beneath is touched. Putting costs O(1), reading what was not changed as
 * much as beneath.
 */
export class Overlay extends Records {
  /** Parents among whose children something was put, so that theirs are not those beneath. */
  private readonly changedParents = new Set<string>()

  constructor(private readonly beneath: Records) {
    super()
  }

  override get<K extends RecordKind>(kind: K, id: string | null): RecordByKind[K] | undefined {
    return super.get(kind, id) ?? this.beneath.get(kind, id)
  }

  override *all<K extends RecordKind>(kind: K): Generator<RecordByKind[K]> {
    for (const record of this.beneath.all(kind)) if (!this.covers(kind, record.id)) yield record
    yield* super.all(kind)
  }

  override put<K extends RecordKind>(kind: K, record: RecordByKind[K]): void {
    if (kind === 'topic') {
      this.noteParent(this.get('topic', record.id))
      this.noteParent(record as TopicRecord)
    }
    super.put(kind, record)
  }

  private noteParent(topic: TopicRecord | undefined): void {
    if (!topic || !hangs(topic.place)) return
    this.changedParents.add(topic.place.parent)
    this.forgetOrder(topic.place.parent)
  }

  override childrenWithTrashed(parent: string): readonly TopicRecord[] {
    return this.changedParents.has(parent)
      ? super.childrenWithTrashed(parent)
      : this.beneath.childrenWithTrashed(parent)
  }

  override ranksBelow(parent: string): Ranks {
    if (!this.changedParents.has(parent)) return this.beneath.ranksBelow(parent)
    return ranksOf(this.childrenWithTrashed(parent))
  }

  override *idsIn(kind: RecordKind, name: string, key: string): Generator<string> {
    for (const id of this.beneath.idsIn(kind, name, key)) if (!this.covers(kind, id)) yield id
    yield* super.idsIn(kind, name, key)
  }

  private covers(kind: RecordKind, id: string): boolean {
    return this.tables.get(kind)?.has(id) ?? false
  }

  /** Stamps are for whoever keeps what was computed, and nobody keeps what was computed from an overlay. */
  override stampOf(_topic: string): number {
    throw new Error('An overlay has no stamps.')
  }
  protected override mark(_kind: RecordKind, _record: AnyRecord): void {}
}
