import { TopicId } from '../records/ids'
import { type AnyRecord, kinds, type RecordByKind, type RecordKind, referencesTo } from '../records/kinds'
import type { Place } from '../records/place'
import type { Records } from '../records/records'
import { type End, endsOf, withEnds } from '../records/reference-path'
import type { TopicRecord } from '../records/topic'
import { branch } from '../tree/walk'
import type { NewChange } from './command'

/** A branch to be copied, with the place of its copy. */
export interface Copy {
  head: TopicRecord
  place: Place
}

const keyOf = ({ kind, id }: End): string => `${kind} ${id}`

/**
 * Copies branches with what belongs to them, as the references of the kinds tell: what topics carry (notes; files stay
 * the same files), and what is inside them (web links, files hung on, enclosures, cross-links) where all of it is copied.
 * Numbers that topics kept stay with the originals. Returns the copy of each topic. O(what is copied).
 */
export function copyBranches(change: NewChange, copies: readonly Copy[]): Map<TopicId, TopicId> {
  const { records } = change
  const places = new Map<string, Place>()
  const going: { kind: RecordKind; record: AnyRecord }[] = []
  for (const { head, place } of copies) {
    places.set(head.id, place)
    for (const topic of branch(records, head)) going.push({ kind: 'topic', record: topic })
  }
  const topics = going.length
  const ids = new Map<string, string>()
  for (const { record } of going) ids.set(keyOf({ kind: 'topic', id: record.id }), change.newId(TopicId))
  for (let i = 0; i < topics; i++) going.push(...partsOf(records, going[i]!.record as TopicRecord, ids))
  for (const { kind, record } of going.slice(topics))
    ids.set(keyOf({ kind, id: record.id }), change.newId(kinds[kind].schema.shape.id as typeof TopicId))

  const mapped = (end: End) => ids.get(keyOf(end)) ?? end.id
  const mapOf = new Map<string, Place['map']>()
  const made = new Map<TopicId, TopicId>()
  for (const { kind, record } of going) {
    const copy = { ...withEnds(record, kinds[kind].references, mapped), id: mapped({ kind, id: record.id }) }
    if (kind === 'topic') {
      const topic = copy as TopicRecord
      const place = places.get(record.id) ?? topic.place
      const map = places.has(record.id) ? place.map : mapOf.get('parent' in place ? place.parent : '')!
      mapOf.set(topic.id, map)
      made.set((record as TopicRecord).id, topic.id)
      const note = topic.note === (record as TopicRecord).note ? null : topic.note
      change.create('topic', { ...topic, place: { ...place, map }, note, number: null })
    } else change.create(kind, copy as RecordByKind[typeof kind])
  }
  return made
}

/** What belongs to a topic and is copied with it. */
function* partsOf(
  records: Records,
  topic: TopicRecord,
  ids: ReadonlyMap<string, string>,
): Generator<{ kind: RecordKind; record: AnyRecord }> {
  for (const reference of kinds.topic.references)
    if (reference.hold === 'carries' && reference.to === 'note')
      for (const { id } of endsOf(topic, reference)) {
        const note = records.get('note', id)
        if (note && !note.trashed) yield { kind: 'note', record: note }
      }
  for (const { from, reference } of referencesTo('topic')) {
    if (reference.hold !== 'inside' || !reference.copied || from === 'topic') continue
    for (const part of records.referring(from, reference, { kind: 'topic', id: topic.id })) {
      const [first] = endsOf(part, reference)
      if (part.trashed || first?.id !== topic.id) continue
      const ends = kinds[from].references.flatMap((other) => endsOf(part, other))
      // A frame or a link that reaches outside stays with the originals.
      const within = ends.every((end) => end.kind === 'file' || ids.has(keyOf(end)))
      if (within) yield { kind: from, record: part }
    }
  }
}
