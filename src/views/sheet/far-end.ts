import { enclosureAtEnd, enclosureName } from '../../core/network/crosslinks'
import type { CrosslinkRecord, LinkEnd } from '../../core/records/crosslink'
import type { MapId, TopicId } from '../../core/records/ids'
import type { TopicRecord } from '../../core/records/topic'
import type { CollectionSession } from '../sync/collection-session'

/** The topic to which one comes by a link: null for a map, and where nothing there is known. */
function farTopic(session: CollectionSession, end: LinkEnd): TopicId | null {
  switch (end.kind) {
    case 'topic':
      return end.id
    case 'enclosure':
      return session.records.get('enclosure', end.id)?.topics.find((topic) => session.nameOf(topic)) ?? null
    case 'note':
      return session.records.carriersOf(end.id)[0]?.id ?? null
    case 'map':
      return null
    default:
      return end satisfies never
  }
}

export type Direction = 'in' | 'out'

/** What is told of the other end of a cross-link: the topic and the map to which one comes, and their names. */
export function farEnd(session: CollectionSession, link: CrosslinkRecord, direction: Direction, from: TopicRecord) {
  const far = direction === 'out' ? farTopic(session, link.to) : link.from
  const name = far ? session.nameOf(far) : null
  const map = (name?.map ?? (link.to.kind === 'map' ? link.to.id : from.place.map)) as MapId
  const at = enclosureAtEnd(session.records, link)
  const enclosure = at ? enclosureName(session.records, at) : null
  const led = direction === 'out' ? (enclosure ?? name?.text) : name?.text
  const title = session.titleOf(map)
  const text = far
    ? (led ?? 'something that is not open to you')
    : link.to.kind === 'map'
      ? title
      : 'something that is not open to you, or gone'
  return { far, map, text, enclosure, title }
}
