import { topicsAtEnd } from '../../core/network/crosslinks'
import type { MapId } from '../../core/records/ids'
import type { Records } from '../../core/records/records'
import type { TopicRecord } from '../../core/records/topic'
import { topicsInOrder } from '../../core/tree/walk'
import type { Visit } from '../workspace/visited'
import type { Found } from './found'

/** Something that is likely meant, with why it is offered. */
export type Offer = Found & { why: string }

const MOST_OF_EACH = 6

/**
 * What is offered before a letter is typed: where the person was lately, the doorways of the map, and what is cross-linked
 * with it on other maps; each once. `titles` has the maps that can be opened.
 */
export function offersFrom(
  records: Records,
  here: MapId,
  titles: ReadonlyMap<MapId, string>,
  visited: readonly Visit[],
): Offer[] {
  const topics = [...topicsInOrder(records, here)]
  const offers = [
    ...lately(records, here, titles, visited).slice(0, MOST_OF_EACH),
    ...doorways(topics, titles).slice(0, MOST_OF_EACH),
    ...linked(records, here, topics, titles).slice(0, MOST_OF_EACH),
  ]
  const seen = new Set<string>()
  return offers.filter(({ id }) => !seen.has(id) && seen.add(id))
}

const mapOffer = (id: MapId, title: string, why: string): Offer => ({
  kind: 'map',
  id,
  map: id,
  mapTitle: title,
  text: title,
  why,
})

const topicOffer = ({ id, text }: TopicRecord, map: MapId, title: string, why: string): Offer => ({
  kind: 'topic',
  id,
  map,
  mapTitle: title,
  text,
  why,
})

function lately(records: Records, here: MapId, titles: ReadonlyMap<MapId, string>, visited: readonly Visit[]): Offer[] {
  return visited.flatMap(({ map, topic }) => {
    const title = titles.get(map)
    if (map === here || title === undefined) return []
    const record = topic && records.get('topic', topic)
    return record && !record.trashed ? topicOffer(record, map, title, 'lately') : mapOffer(map, title, 'lately')
  })
}

function doorways(topics: readonly TopicRecord[], titles: ReadonlyMap<MapId, string>): Offer[] {
  return topics.flatMap(({ opensMap }) => {
    const title = opensMap && titles.get(opensMap)
    return title ? mapOffer(opensMap, title, 'doorway here') : []
  })
}

function linked(
  records: Records,
  here: MapId,
  topics: readonly TopicRecord[],
  titles: ReadonlyMap<MapId, string>,
): Offer[] {
  const links = topics.flatMap(({ id }) => [...records.crosslinksFrom(id), ...records.crosslinksTo('topic', id)])
  return links.flatMap((link) => {
    const from = records.get('topic', link.from)
    const ends = [...(from ? [from] : []), ...topicsAtEnd(records, link)]
    const offers = ends.flatMap((topic) => {
      const title = titles.get(topic.place.map)
      return title === undefined || topic.place.map === here
        ? []
        : topicOffer(topic, topic.place.map, title, 'cross-linked')
    })
    const title = link.to.kind === 'map' && link.to.id !== here ? titles.get(link.to.id) : undefined
    return link.to.kind === 'map' && title !== undefined
      ? [...offers, mapOffer(link.to.id, title, 'cross-linked')]
      : offers
  })
}
