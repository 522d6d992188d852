import type { CrosslinkRecord } from '../records/crosslink'
import type { EnclosureRecord } from '../records/enclosure'
import type { MapId } from '../records/ids'
import { isRoot } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/** What an enclosure is called: its title, else what it is around. */
export function enclosureName(records: Records, { title, topics }: EnclosureRecord): string {
  if (title !== '') return title
  const first = topics.map((topic) => records.get('topic', topic)).find((topic) => topic && !topic.trashed)
  return first ? `the enclosure around ${first.text || 'Untitled'}` : 'an enclosure'
}

/** The enclosure that a cross-link leads to; undefined where it leads elsewhere, or the enclosure is gone. */
export function enclosureAtEnd(records: Records, { to }: CrosslinkRecord): EnclosureRecord | undefined {
  const enclosure = to.kind === 'enclosure' ? records.get('enclosure', to.id) : undefined
  return enclosure?.trashed ? undefined : enclosure
}

/**
 * The topics at which a cross-link ends: that to which it leads, those that an enclosure names, or those that carry the
 * note. What is not held, lies in the trash itself, or is a map, gives none.
 */
export function topicsAtEnd(records: Records, { to }: CrosslinkRecord): TopicRecord[] {
  const topics = (ids: readonly string[]) => ids.flatMap((id) => records.get('topic', id) ?? [])
  switch (to.kind) {
    case 'topic':
      return topics([to.id])
    case 'enclosure':
      return topics(records.get('enclosure', to.id)?.topics ?? []).filter(({ trashed }) => !trashed)
    case 'note':
      return records.carriersOf(to.id).filter(({ trashed }) => !trashed)
    case 'map':
      return []
    default:
      return to satisfies never
  }
}

/** The map to which a cross-link leads; null where its far end is not held or gone. */
export const mapAtEnd = (records: Records, link: CrosslinkRecord): MapId | null =>
  link.to.kind === 'map' ? link.to.id : (topicsAtEnd(records, link)[0]?.place.map ?? null)

/** Links that arrive at a topic: at itself, at an enclosure of which it is the first, at its note and, at a root, at its map. */
export const incomingAt = (records: Records, topic: TopicRecord): CrosslinkRecord[] => [
  ...records.crosslinksTo('topic', topic.id),
  ...records.enclosuresOf(topic.id).flatMap(({ id, topics }) => {
    const first = topics.find((one) => records.get('topic', one)?.trashed === false)
    return first === topic.id ? records.crosslinksTo('enclosure', id) : []
  }),
  ...(isRoot(topic) ? records.crosslinksTo('map', topic.place.map) : []),
  ...(topic.note ? records.crosslinksTo('note', topic.note) : []),
]

/**
 * Whether a cross-link is shown by a sign at its ends instead of a line: because a person made it quiet, or because
 * its far end is a map or a note, stands on another map, or is not among the records.
 */
export function crosslinkIsQuiet(records: Records, link: CrosslinkRecord): boolean {
  if (link.drawn !== 'line' || link.to.kind === 'map' || link.to.kind === 'note') return true
  const from = records.get('topic', link.from)
  return !from || mapAtEnd(records, link) !== from.place.map
}
