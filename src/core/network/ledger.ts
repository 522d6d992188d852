import type { Lexicon } from '../matching/lexicon'
import type { CrosslinkRecord, Drawn } from '../records/crosslink'
import type { CrosslinkId, MapId, TopicId, WeblinkId } from '../records/ids'
import { parentOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { ancestors, isInTrash, topicsInOrder } from '../tree/walk'
import { closePairs } from './closeness'
import { enclosureAtEnd, enclosureName, topicsAtEnd } from './crosslinks'
import { mentionsIn, type Telling } from './mentions'
import { overlapsOf } from './overlaps'

/** Where something stands: a topic, or a map as a whole. */
export interface Place {
  topic: TopicId | null
  map: MapId
  text: string
}

/** A cross-link as the ledger tells of it. */
interface LedgerLink {
  id: CrosslinkId
  from: Place
  /** Null where it leads to what is not open to whoever asks, or is gone. */
  to: Place | null
  /** How the far end is meant, where it is no topic: `map`, `note` or `enclosure`. */
  end: CrosslinkRecord['to']['kind']
  label: string
  drawn: Drawn
  /** Why it leads nowhere; null for a link that leads somewhere. */
  broken: string | null
}

interface LedgerWeblink {
  id: WeblinkId
  at: Place
  url: string
  title: string
}

/** Something that is named in a text without being linked with it. */
interface LedgerMention {
  in: Place
  /** Whether it is named in the note, and not in the topic's own words. */
  isInNote: boolean
  of: Place
  /** What the text says around the name. */
  said: string
}

/** Two topics that are close in meaning without being linked, and the words by which they are. */
interface LedgerClose {
  a: Place
  b: Place
  shared: string[]
}

/** Two branches, or whole maps, that say much the same. */
interface LedgerOverlap {
  a: Place
  b: Place
  said: number
  of: number
}

export interface Ledger {
  links: LedgerLink[]
  weblinks: LedgerWeblink[]
  mentions: LedgerMention[]
  close: LedgerClose[]
  overlaps: LedgerOverlap[]
}

/** Words of a text that are shown before and after a name. */
const AROUND = 6
/** Of a note so many letters are read: what is named after that nobody comes upon. */
const READ = 20_000

/**
 * All links of a collection, as far as its maps are open to whoever asks, and what could be linked: what is named somewhere,
 * what is close in meaning, and what overlaps. Linear in topics, notes and links.
 */
export function ledgerOf(records: Records, isOpen: (map: string) => boolean, lexicon: Lexicon): Ledger {
  const maps = [...records.all('map')].filter(({ id, trashed }) => !trashed && isOpen(id))
  const topics = maps.flatMap(({ id }) => [...topicsInOrder(records, id)])
  const isShown = (topic: TopicRecord | undefined): topic is TopicRecord =>
    topic !== undefined && isOpen(topic.place.map) && !isInTrash(records, topic)
  return {
    links: topics.flatMap((topic) =>
      records.crosslinksFrom(topic.id).map((link) => linkRow(records, topic, link, isShown, isOpen)),
    ),
    weblinks: topics.flatMap((topic) =>
      records.weblinks(topic.id).map(({ id, url, title }) => ({ id, at: placeOf(topic), url, title })),
    ),
    mentions: mentionRows(records, topics),
    ...closeRows(records, topics, lexicon),
  }
}

export const placeOf = ({ id, place, text }: TopicRecord): Place => ({ topic: id, map: place.map, text })

function linkRow(
  records: Records,
  from: TopicRecord,
  link: CrosslinkRecord,
  isShown: (topic: TopicRecord | undefined) => topic is TopicRecord,
  isOpen: (map: string) => boolean,
): LedgerLink {
  const { id, label, drawn } = link
  const row = { id, from: placeOf(from), end: link.to.kind, label, drawn, to: null, broken: null }
  if (link.to.kind === 'map') {
    const map = records.get('map', link.to.id)
    if (map && !isOpen(map.id)) return row
    if (!map || map.trashed) return { ...row, broken: map ? 'The map lies in the trash.' : 'The map is gone.' }
    return { ...row, to: { topic: null, map: map.id, text: map.title } }
  }
  const ends = topicsAtEnd(records, link)
  const shown = ends.find(isShown)
  if (shown) {
    const enclosure = enclosureAtEnd(records, link)
    const text = enclosure ? enclosureName(records, enclosure) : shown.text
    return { ...row, to: { ...placeOf(shown), text } }
  }
  // What stands on a map that is not open to them may be there or not: they are not told.
  if (ends.some(({ place }) => !isOpen(place.map))) return row
  return { ...row, broken: ends.length > 0 ? 'What it leads to lies in the trash.' : 'What it leads to is gone.' }
}

function mentionRows(records: Records, topics: readonly TopicRecord[]): LedgerMention[] {
  const byId = new Map<string, TopicRecord>(topics.map((topic) => [topic.id, topic]))
  const texts = topics.map(({ id, text }): Telling => ({ id, text }))
  const notes = topics.flatMap(({ id, note }): Telling[] => {
    const text = records.get('note', note)?.text
    return text ? [{ id: `note ${id}`, text: text.slice(0, READ) }] : []
  })
  const textOf = new Map([...texts, ...notes].map(({ id, text }) => [id, text]))
  // A doorway is called like the map behind it: that map is meant.
  const names = topics.filter(({ opensMap, text }) => opensMap === null || records.root(opensMap)?.text !== text)
  return mentionsIn([...texts, ...notes], names).flatMap(({ in: where, of, at, words }): LedgerMention[] => {
    const isInNote = where.startsWith('note ')
    const topic = byId.get(isInNote ? where.slice('note '.length) : where)!
    const named = byId.get(of)!
    if (topic.id === named.id || areNear(records, topic, named)) return []
    return [{ in: placeOf(topic), isInNote, of: placeOf(named), said: saidAround(textOf.get(where)!, at, words) }]
  })
}

function closeRows(
  records: Records,
  topics: readonly TopicRecord[],
  lexicon: Lexicon,
): Pick<Ledger, 'close' | 'overlaps'> {
  const byId = new Map<string, TopicRecord>(topics.map((topic) => [topic.id, topic]))
  const close = closePairs(
    topics.map(({ id, text, note }) => ({ id, text, note: records.get('note', note)?.text ?? '' })),
    lexicon,
  )
  const rowOf = (id: string) => placeOf(byId.get(id)!)
  return {
    close: close.flatMap(({ a, b, shared }): LedgerClose[] => {
      const [first, second] = [byId.get(a)!, byId.get(b)!]
      const areSiblings = parentOf(first) !== null && parentOf(first) === parentOf(second)
      return areSiblings || areNear(records, first, second) ? [] : [{ a: placeOf(first), b: placeOf(second), shared }]
    }),
    overlaps: overlapsOf(records, close).map(({ a, b, said, of }) => ({ a: rowOf(a), b: rowOf(b), said, of })),
  }
}

/** Whether two topics stand below one another, lead to one another, are linked already, or were told apart by a person. */
function areNear(records: Records, a: TopicRecord, b: TopicRecord): boolean {
  if (a.opensMap === b.place.map || b.opensMap === a.place.map) return true
  if (a.apart.includes(b.id) || b.apart.includes(a.id)) return true
  for (const [one, other] of [
    [a, b],
    [b, a],
  ] as const) {
    for (const link of records.crosslinksFrom(one.id))
      if (
        topicsAtEnd(records, link).some(({ id }) => id === other.id) ||
        (link.to.kind === 'map' && link.to.id === other.place.map)
      )
        return true
    // Of a branch its own words say enough.
    for (const above of ancestors(records, one)) if (above.id === other.id) return true
  }
  return false
}

const WORD = /[\p{L}\p{N}\p{M}]+/gu

/** Some words of a text before and after those that name something. */
function saidAround(text: string, at: number, words: number): string {
  const found = [...text.matchAll(WORD)]
  const first = found[Math.max(0, at - AROUND)]
  const last = found[Math.min(found.length - 1, at + words - 1 + AROUND)]
  if (!first || !last) return text.slice(0, 80)
  const said = text.slice(first.index, last.index + last[0].length).replace(/\s+/g, ' ')
  return `${at > AROUND ? '… ' : ''}${said}${at + words + AROUND < found.length ? ' …' : ''}`
}
