import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { AttachmentId, NoteId, TopicId, WeblinkId } from '../records/ids'
import type { Records } from '../records/records'
import type { Place, TopicRecord } from '../records/topic'
import { branch } from '../tree/walk'
import { Draft, type Making, named, type Outcome } from './command'
import { hasSides } from './layouts'
import { headsOnly } from './move-topics'

/**
 * Copies branches with their notes, files and web links. Each copy stands behind its original, or, with `onto`, below
 * another topic of any map. Doorways are copied as doorways; cross-links stay with the originals.
 */
export function duplicateBranches(
  records: Records,
  args: { topics: TopicId[]; onto: TopicId | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const heads = headsOnly(records, args.topics)
  if (heads.length === 0) refuse('gone', 'There is nothing to copy.')
  const onto = args.onto ? (records.get('topic', args.onto) ?? refuse('gone', 'This topic is gone.')) : null
  if (!onto && heads.some((head) => head.place.parent === null && head.place.x === null))
    refuse('root', 'A map has one root. Copy it onto a topic instead.')
  const places = onto ? placesBelow(records, onto, heads.length) : heads.map((head) => placeBehind(records, head))
  const made = heads.map((head, i) => copyBranch(draft, head, places[i]!))
  const what = heads.length === 1 ? named(heads[0]!.text) : `${heads.length} branches`
  return draft.outcome(`Copy ${what}`, made)
}

function placesBelow(records: Records, parent: TopicRecord, count: number): Place[] {
  const last = records.childrenWithTrashed(parent.id).at(-1)?.place.rank ?? null
  const side = hasSides(parent) ? ('right' as const) : null
  return generateNKeysBetween(last, null, count).map((rank) => ({
    map: parent.place.map,
    parent: parent.id,
    rank,
    side,
    x: null,
    y: null,
  }))
}

/** How far a copy of a loose branch stands from its original, in px; it moves on where there is no room. */
const ASIDE = 40

function placeBehind(records: Records, head: TopicRecord): Place {
  const { parent, rank, x, y } = head.place
  if (parent === null) return { ...head.place, x: (x ?? 0) + ASIDE, y: (y ?? 0) + ASIDE }
  const siblings = records.childrenWithTrashed(parent)
  const next = siblings[siblings.findIndex(({ id }) => id === head.id) + 1]
  const [between] = generateNKeysBetween(rank, next?.place.rank ?? null, 1)
  return { ...head.place, rank: between!, x: null, y: null }
}

function copyBranch(draft: Draft, head: TopicRecord, place: Place): TopicId {
  const { records } = draft
  const copies = new Map<string, TopicId>()
  for (const topic of branch(records, head)) {
    const id = draft.newId(TopicId)
    copies.set(topic.id, id)
    const own =
      topic.id === head.id ? place : { ...topic.place, map: place.map, parent: copies.get(topic.place.parent!)! }
    const note = records.get('note', topic.note)
    const copiedNote = note ? draft.create('note', { ...note, id: draft.newId(NoteId) }).id : null
    draft.create('topic', { ...topic, id, place: own, note: copiedNote, number: null })
    for (const link of records.weblinks(topic.id))
      draft.create('weblink', { ...link, id: draft.newId(WeblinkId), topic: id })
    for (const attachment of records.attachments(topic.id))
      draft.create('attachment', { ...attachment, id: draft.newId(AttachmentId), topic: id })
  }
  return copies.get(head.id)!
}
