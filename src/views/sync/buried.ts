import type { ToldChange } from '../../core/changes/edit'
import { TopicId } from '../../core/records/ids'
import { hangs } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import { ancestors } from '../../core/tree/walk'

/** What this person wrote, and what was put into the trash with it elsewhere: by somebody else, or by themselves in another window. */
export interface BuriedWords {
  /** What lies in the trash: the topic itself, or one above it. */
  head: TopicId
  /** Who put it there, “you” in another window; null where that is not known. */
  by: string | null
  /** What was written, and is seen nowhere. */
  topics: TopicId[]
}

const HERE = Symbol('here')
const YOU = 'you'

/** Who puts something into the trash has not seen what was written there so short a time before, in ms. */
const UNSEEN_MS = 30_000

/** Finds out when words that a person has just written lie in the trash by what was done elsewhere: they are saved, and seen nowhere. */
export class Buried {
  /** Topics in which this person wrote lately, with when, and the number of the change. */
  private readonly written = new Map<string, { at: number; number: number }>()
  private readonly trashed = new Map<string, { by: string | typeof HERE; number: number }>()

  constructor(
    private readonly records: Records,
    private readonly person: string,
    private readonly isOpen: (map: string) => boolean,
    /** Whether a change was made in this window. */
    private readonly isOfHere: (change: string) => boolean,
  ) {}

  /** To be called when told changes have been applied to the records. O(edits, and what was written lately times its levels). */
  look(changes: readonly ToldChange[], now = Date.now()): BuriedWords[] {
    for (const change of changes) this.note(change, now)
    const found = new Map<string, BuriedWords>()
    for (const [id, { at, number }] of this.written) {
      const isLate = now - at > UNSEEN_MS
      const head = this.headInTrash(id)
      if (head || isLate) this.written.delete(id)
      if (!head) continue
      const { by = null, number: trashedWith = 0 } = this.trashed.get(head) ?? {}
      // What somebody trashes in one window they have seen there, unless it was written after that in another one.
      const isUnseen = number > trashedWith || (!isLate && by !== YOU)
      if (by === HERE || !isUnseen) continue
      const before = found.get(head)
      if (before) before.topics.push(TopicId.parse(id))
      else found.set(head, { head, by, topics: [TopicId.parse(id)] })
    }
    return [...found.values()]
  }

  private note({ id: change, number, edits, person, personName }: ToldChange, now: number): void {
    const by = this.isOfHere(change) ? HERE : person === this.person ? YOU : personName
    for (const { kind, id, after } of edits ?? []) {
      if (kind === 'topic' && after.trashed === true) this.trashed.set(id, { by, number })
      if (kind === 'topic' && after.trashed === false) this.trashed.delete(id)
      if (person !== this.person) continue
      if (kind === 'topic' && after.text) this.written.set(id, { at: now, number })
      if (kind === 'note' && after.text)
        for (const topic of this.records.carriersOf(id)) this.written.set(topic.id, { at: now, number })
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
