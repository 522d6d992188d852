import { generateNKeysBetween } from 'fractional-indexing'
import type { OutlineItem } from '../formats/outline'
import { NoteId, TopicId, WeblinkId } from '../records/ids'
import { MAX_TOPIC_TEXT } from '../records/text'
import type { Side, TopicRecord } from '../records/topic'
import { isFollowable } from '../records/weblink'
import { blankTopic } from './add-topic'
import type { Draft } from './command'
import { joinTexts } from './join-notes'
import { evenSides } from './sides'

/** An outline item that has become a topic, for commands that go on with its links. */
export interface Planted {
  item: OutlineItem
  topic: TopicRecord
}

/** Characters that no record may hold are replaced, and a text that is too long runs on in the note. */
function storable(item: OutlineItem): { text: string; note: string } {
  const clean = (text: string) => text.replaceAll('\u0000', '\ufffd').toWellFormed()
  const text = clean(item.text)
  const note = clean(item.note)
  if (text.length <= MAX_TOPIC_TEXT) return { text, note }
  return {
    text: `${text
      .slice(0, 200)
      .toWellFormed()
      .replace(/\ufffd$/, '')}…`,
    note: joinTexts(text, note),
  }
}

const rowsOf = (item: OutlineItem): number => {
  let rows = 0
  const waiting = [item]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.children.length === 0) rows++
    else waiting.push(...next.children)
  }
  return rows
}

/**
 * Turns items into topics below `parent`, behind its last child, with their notes and followable web links.
 * Returns every item with its topic, in no promised order. Iterative: depth is no limit.
 */
export function plant(draft: Draft, parent: TopicRecord, items: readonly OutlineItem[], atRoot: boolean): Planted[] {
  const planted: Planted[] = []
  const lastRank = draft.records.childrenWithTrashed(parent.id).at(-1)?.place.rank ?? null
  const sides: (Side | null)[] = atRoot ? evenSides(items.map(rowsOf)) : items.map(() => null)
  const waiting: {
    parent: TopicRecord
    items: readonly OutlineItem[]
    after: string | null
    sides: (Side | null)[]
  }[] = [{ parent, items, after: lastRank, sides }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const ranks = generateNKeysBetween(next.after, null, next.items.length)
    next.items.forEach((item, i) => {
      const place = {
        map: next.parent.place.map,
        parent: next.parent.id,
        rank: ranks[i]!,
        side: next.sides[i] ?? null,
        x: null,
        y: null,
      }
      const topic = plantOne(draft, item, place)
      planted.push({ item, topic })
      if (item.children.length > 0) waiting.push({ parent: topic, items: item.children, after: null, sides: [] })
    })
  }
  return planted
}

/** Turns an item, with all below it, into a branch whose head stands at a place of its own. */
export function plantHead(draft: Draft, item: OutlineItem, place: TopicRecord['place']): TopicRecord {
  const head = plantOne(draft, item, place)
  if (item.children.length > 0) plant(draft, head, item.children, false)
  return head
}

function plantOne(draft: Draft, item: OutlineItem, place: TopicRecord['place']): TopicRecord {
  const { text, note } = storable(item)
  const topic = blankTopic(draft.newId(TopicId), place, text)
  if (note.trim() !== '') topic.note = draft.create('note', { id: draft.newId(NoteId), text: note, trashed: false }).id
  draft.create('topic', topic)
  plantWeblinks(draft, topic, item)
  return topic
}

export function plantWeblinks(draft: Draft, topic: TopicRecord, item: OutlineItem): void {
  const links = item.links.filter((link) => isFollowable(link.address) && link.address.length <= 2_000)
  const ranks = generateNKeysBetween(null, null, links.length)
  links.forEach((link, i) => {
    const title = link.title.slice(0, 500).toWellFormed()
    draft.create('weblink', {
      id: draft.newId(WeblinkId),
      topic: topic.id,
      url: link.address,
      title,
      rank: ranks[i]!,
      trashed: false,
    })
  })
}
