import type { ToldChange } from '../../core/changes/edit'
import { TopicId } from '../../core/records/ids'
import { hangs } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import { ancestors } from '../../core/tree/walk'

/** What this person wrote, and what somebody else has put into the trash with it. */
export interface BuriedWords {
  /** What lies in the trash: the topic itself, or one above it. */
  head: TopicId
  /** Who put it there; null where that is not known. */
  by: string | null
  /** What was written, and is seen nowhere. */
  topics: TopicId[]
}

/** So long what somebody wrote is known as theirs, in ms. */
const KNOWN_MS = 10 * 60_000

/** Finds out when words that a person has just written lie in the trash because of what others did: they are saved, and seen nowhere. */
export class Buried {
  /** Topics in which this person wrote, with when. */
  private readonly written = new Map<string, number>()
  private readonly trashedBy = new Map<string, { person: string; name: string }>()

  constructor(
    private readonly records: Records,
    private readonly person: string,
    private readonly isOpen: (map: string) => boolean,
  ) {}

  /** To be called when told changes have been applied to the records. O(edits, and what was written lately times its levels). */
  look(changes: readonly ToldChange[], now = Date.now()): BuriedWords[] {
    for (const change of changes) this.note(change, now)
    const found = new Map<string, BuriedWords>()
    for (const [id, at] of this.written) {
      const head = now - at > KNOWN_MS ? null : this.headInTrash(id)
      if (head || now - at > KNOWN_MS) this.written.delete(id)
      const by = head && this.trashedBy.get(head)
      if (!head || by?.person === this.person) continue
      const before = found.get(head)
      if (before) before.topics.push(TopicId.parse(id))
      else found.set(head, { head, by: by?.name ?? null, topics: [TopicId.parse(id)] })
    }
    return [...found.values()]
  }

  private note({ edits, person, personName }: ToldChange, now: number): void {
    for (const { kind, id, after } of edits ?? []) {
      if (kind === 'topic' && after.trashed === true) this.trashedBy.set(id, { person, name: personName })
      if (kind === 'topic' && after.trashed === false) this.trashedBy.delete(id)
      if (person !== this.person) continue
      if (kind === 'topic' && after.text) this.written.set(id, now)
      if (kind === 'note' && after.text)
        for (const topic of this.records.carriersOf(id)) this.written.set(topic.id, now)
    }
  }

  private headInTrash(id: string): TopicId | null {
    const topic = this.records.get('topic', id)
    if (!topic || !this.isOpen(topic.place.map)) return null
    let last = topic
    for (const at of [topic, ...ancestors(this.records, topic)]) {
      if (at.trashed) return at.id
      last = at
    }
    // What was in the trash when the map was opened is not held.
    return hangs(last.place) ? last.place.parent : null
  }
}
