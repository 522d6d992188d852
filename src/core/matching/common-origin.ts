import { dequal } from 'dequal/lite'
import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { CopyOf, TopicRecord } from '../records/topic'
import { fingerprint } from '../text/fingerprint'

/** What is compared three ways where one topic is a copy of the other. */
const COMPARED = ['text', 'note', 'dates', 'task'] as const
type Compared = (typeof COMPARED)[number]

/** What was changed on one side alone since the copy was made: `takes` at the source, `keeps` at the target. */
export interface Settled {
  takes: readonly Compared[]
  keeps: readonly Compared[]
}

/** What a topic says, with the text of its note, if it has one. */
export const saidBy = ({ id, text, dates, task }: TopicRecord, note: string | undefined): CopyOf => ({
  topic: id,
  text,
  note: note?.trim() ? fingerprint(note.trim()) : null,
  dates,
  task,
})

/** What a topic says, for its copy to remember. */
export const remembered = (records: Records, topic: TopicRecord): CopyOf =>
  saidBy(topic, records.get('note', topic.note)?.text)

/**
 * Three ways: what only one of two topics has changed since one was copied from the other; null where neither is a copy of the
 * other. What both changed, each in its own way, is in neither list.
 */
export function settledBetween(records: Records, target: TopicRecord, source: TopicRecord): Settled | null {
  const base =
    source.copyOf?.topic === target.id ? source.copyOf : target.copyOf?.topic === source.id ? target.copyOf : null
  if (!base) return null
  const [own, other] = [remembered(records, target), remembered(records, source)]
  const differing = COMPARED.filter((field) => !dequal(own[field], other[field]))
  return {
    takes: differing.filter((field) => dequal(own[field], base[field])),
    keeps: differing.filter((field) => dequal(other[field], base[field])),
  }
}

/** Finds by origin which topic of a map another one is: its original, its copy, or a copy of the same. */
export class CommonOrigins {
  private readonly own = new Set<TopicId>()
  private readonly copies = new Map<TopicId, TopicId>()

  constructor(topics: readonly TopicRecord[]) {
    for (const { id, copyOf } of topics) {
      this.own.add(id)
      if (copyOf && !this.copies.has(copyOf.topic)) this.copies.set(copyOf.topic, id)
    }
  }

  stands(topic: TopicId): boolean {
    return this.own.has(topic)
  }

  find({ id, copyOf }: TopicRecord): TopicId | null {
    if (copyOf && this.own.has(copyOf.topic)) return copyOf.topic
    return this.copies.get(id) ?? (copyOf ? this.copies.get(copyOf.topic) : undefined) ?? null
  }
}

/**
 * Topics of a copy whose originals have since been taken out of the map from which they were copied, and at and below which nothing was
 * changed in the copy: a merge that adds them again would bring back what somebody put away. `topics` are in reading order, `parents`
 * their indices, -1 at the heads. O(topics).
 */
export function takenOutSince(
  records: Records,
  target: MapId,
  origins: CommonOrigins,
  topics: readonly TopicRecord[],
  parents: readonly number[],
  isKept: (topic: TopicId) => boolean,
): Set<TopicId> {
  const isOut = topics.map((topic) => {
    const original = records.get('topic', topic.copyOf?.topic ?? null)
    if (!original || original.place.map !== target || origins.stands(original.id) || isKept(topic.id)) return false
    return COMPARED.every((field) => dequal(remembered(records, topic)[field], topic.copyOf![field]))
  })
  for (let node = topics.length - 1; node >= 0; node--)
    if (!isOut[node] && parents[node]! >= 0) isOut[parents[node]!] = false
  return new Set(topics.flatMap(({ id }, node) => (isOut[node] ? id : [])))
}
