import type { Records } from '../records/records'
import { isInTrash } from '../tree/walk'
import { mapAtEnd, topicsAtEnd } from './crosslinks'

export interface LinkProblems {
  brokenLinks: { from: string; text: string; reason: string }[]
  unreachableMaps: { id: string; title: string }[]
}

/**
 * Cross-links and doorways that lead into the trash, and maps that cannot be reached from the home map by doorways
 * and cross-links. Linear in topics and links.
 */
export function crosslinkProblems(records: Records, collection: string): LinkProblems {
  const brokenLinks: LinkProblems['brokenLinks'] = []
  const reaches = new Map<string, Set<string>>()
  const reach = (from: string, to: string) => {
    const targets = reaches.get(from)
    if (targets) targets.add(to)
    else reaches.set(from, new Set([to]))
  }
  for (const topic of records.all('topic')) {
    if (isInTrash(records, topic)) continue
    const opened = records.get('map', topic.opensMap)
    if (opened?.trashed)
      brokenLinks.push({ from: topic.id, text: topic.text, reason: 'It opens a map that lies in the trash.' })
    else if (opened) reach(topic.place.map, opened.id)
    for (const link of records.crosslinksFrom(topic.id)) {
      const map = records.get('map', mapAtEnd(records, link))
      const ends = topicsAtEnd(records, link)
      const isGone = link.to.kind !== 'map' && ends.every((end) => isInTrash(records, end))
      if (!map || map.trashed || isGone)
        brokenLinks.push({ from: topic.id, text: topic.text, reason: 'It is linked with something in the trash.' })
      else {
        reach(topic.place.map, map.id)
        reach(map.id, topic.place.map)
      }
    }
  }
  const home = records.get('collection', collection)?.homeMap ?? null
  const reached = new Set<string>(home ? [home] : [])
  for (const map of reached) for (const next of reaches.get(map) ?? []) reached.add(next)
  const unreachableMaps = [...records.all('map')]
    .filter((map) => !map.trashed && !reached.has(map.id))
    .map(({ id, title }) => ({ id, title }))
    .sort((a, b) => (a.id < b.id ? -1 : 1))
  return { brokenLinks, unreachableMaps }
}
