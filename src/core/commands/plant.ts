import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { countItems, type OutlineItem } from '../formats/outline'
import { NoteId, TopicId, WeblinkId } from '../records/ids'
import type { HangingPlace, Place } from '../records/place'
import { cutText, MAX_TITLE, MAX_TOPIC_TEXT, storable } from '../records/text'
import type { TopicRecord } from '../records/topic'
import { isFollowable, MAX_ADDRESS, newWeblink } from '../records/weblink'
import { joinTexts } from '../text/join-texts'
import { blankTopic } from './blank-topic'
import type { NewChange } from './command'
import { placesFor } from './hang'

/** Most topics that one paste, or one page of an import, makes. */
export const MAX_PLANTED = 10_000

/** An outline item that has become a topic, for commands that go on with its links. */
export interface Planted {
  item: OutlineItem
  topic: TopicRecord
}

/** How many topics items become. Refused for none, and for more than can be made at once. O(items). */
export function sizeToPlant(items: readonly OutlineItem[], act: string): number {
  const count = countItems(items)
  if (count === 0) refuse('invalid', `There is no text to ${act}.`)
  if (count > MAX_PLANTED)
    refuse('invalid', `This text would become ${count} topics; at most ${MAX_PLANTED} can be made at once.`)
  return count
}

/** The beginning of a text that is too long for a topic. */
const BEGINNING = 200

/** Characters that no record may hold are replaced, and a text that is too long runs on in the note. */
export function textsOf(item: OutlineItem): { text: string; note: string } {
  const text = storable(item.text)
  const note = storable(item.note)
  if (text.length <= MAX_TOPIC_TEXT) return { text, note }
  return { text: `${cutText(text, BEGINNING)}…`, note: joinTexts(text, note) }
}

const rowsOfItem = (item: OutlineItem): number => {
  let rows = 0
  const waiting = [item]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.children.length === 0) rows++
    else for (const child of next.children) waiting.push(child)
  }
  return rows
}

/**
 * Turns items into topics below `parent`, behind its last child, with their notes and followable web links.
 * Returns every item with its topic, in no promised order. Iterative: depth is no limit. O(items).
 */
export function plant(change: NewChange, parent: TopicRecord, items: readonly OutlineItem[]): Planted[] {
  const planted: Planted[] = []
  const waiting: { items: readonly OutlineItem[]; places: readonly HangingPlace[] }[] = [
    { items, places: placesFor(change.records, { parent, after: 'last' }, items.map(rowsOfItem)) },
  ]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { places } = next
    next.items.forEach((item, i) => {
      const topic = plantOne(change, item, places[i]!)
      planted.push({ item, topic })
      if (item.children.length > 0) waiting.push({ items: item.children, places: placesBelowNew(topic, item) })
    })
  }
  return planted
}

/** Below a topic that has just been made nothing hangs yet. */
function placesBelowNew({ id, place: { map } }: TopicRecord, { children }: OutlineItem): HangingPlace[] {
  const ranks = generateNKeysBetween(null, null, children.length)
  return ranks.map((rank) => ({ kind: 'arranged', map, parent: id, rank, side: null }))
}

/** Turns an item, with all below it, into a branch whose head stands at a place of its own. */
export function plantHead(change: NewChange, item: OutlineItem, place: Place): TopicRecord {
  const head = plantOne(change, item, place)
  if (item.children.length > 0) plant(change, head, item.children)
  return head
}

/** Turns an item, without what is below it, into a topic at a place. */
export function plantOne(
  change: NewChange,
  item: OutlineItem,
  place: Place,
  id: TopicId = change.newId(TopicId),
): TopicRecord {
  const { text, note } = textsOf(item)
  const topic = blankTopic(id, place, text)
  topic.note = plantNote(change, note)
  change.create('topic', topic)
  plantWeblinks(change, topic, item)
  return topic
}

/** Gives a topic that is new, such as the root of a map, what an item holds besides its children; a text that it has already stays where the item has none. */
export function plantOnRoot(change: NewChange, root: TopicRecord, item: OutlineItem): TopicRecord {
  const { text, note } = textsOf(item)
  change.update('topic', root.id, { text: text.trim() || root.text, note: plantNote(change, note) })
  plantWeblinks(change, root, item)
  return change.topic(root.id)
}

const plantNote = (change: NewChange, text: string): NoteId | null =>
  text.trim() === ''
    ? null
    : change.create('note', { id: change.newId(NoteId), text, joinedInto: null, trashed: false }).id

function plantWeblinks(change: NewChange, topic: TopicRecord, item: OutlineItem): void {
  const links = item.links.filter((link) => isFollowable(link.address) && link.address.length <= MAX_ADDRESS)
  const ranks = generateNKeysBetween(null, null, links.length)
  links.forEach((link, i) => {
    const id = change.newId(WeblinkId)
    const title = cutText(storable(link.title), MAX_TITLE)
    change.create('weblink', newWeblink({ id, topic: topic.id, url: storable(link.address), title, rank: ranks[i]! }))
  })
}
