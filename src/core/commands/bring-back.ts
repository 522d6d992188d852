import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { CrosslinkId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { Draft, type Making, named, type Outcome } from './command'
import { mapsAbove } from './home-doorways'
import { joinNotes } from './join-notes'
import { moveBelongings } from './move-belongings'

/**
 * The reverse of splitting off: everything on the map that a topic opens comes back below the topic, and the map goes
 * into the trash. What its root carried, the topic carries. Other doorways to the map become cross-links to the topic.
 * Needs the records of both maps.
 */
export function bringBack(records: Records, args: { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const doorway = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const map = records.get('map', doorway.opensMap) ?? refuse('doorway', 'This topic opens no map.')
  const root = records.root(map.id) ?? refuse('gone', 'The map behind this topic is gone.')
  if (map.id === doorway.place.map || mapsAbove(records, doorway.place.map).includes(map.id))
    refuse('loop', 'This map is above its own doorway, so it cannot come back below it.')
  for (const collection of records.all('collection'))
    if (collection.homeMap === map.id) refuse('invalid', 'The home map of the collection cannot be brought back.')

  bringTopics(draft, doorway, root)
  const note = joinNotes(draft, doorway, root)
  draft.update('topic', doorway.id, { opensMap: null, folded: false, ...(note ? { note } : {}) })
  draft.update('map', map.id, { homeDoorway: null, trashed: true })
  moveBelongings(draft, root, doorway)
  for (const link of records.crosslinksToMap(map.id))
    draft.update('crosslink', link.id, { toMap: null, toTopic: doorway.id })
  for (const other of records.doorwaysTo(map.id)) {
    if (other.id === doorway.id) continue
    draft.update('topic', other.id, { opensMap: null })
    draft.create('crosslink', {
      id: draft.newId(CrosslinkId),
      from: other.id,
      toTopic: doorway.id,
      toMap: null,
      toEnclosure: null,
      label: '',
      drawn: 'quiet',
      trashed: false,
    })
  }
  return draft.outcome(`Bring back ${named(doorway.text)}`, [doorway.id])
}

function bringTopics(draft: Draft, doorway: TopicRecord, root: TopicRecord): void {
  const { records } = draft
  const coming = [...records.childrenWithTrashed(root.id), ...records.looseBranches(root.place.map)]
  const own = records.childrenWithTrashed(doorway.id)
  const ranks =
    own.length === 0 && coming.every((topic) => topic.place.parent)
      ? coming.map((topic) => topic.place.rank)
      : generateNKeysBetween(own.at(-1)?.place.rank ?? null, null, coming.length)
  coming.forEach((topic, i) => {
    const place = { map: doorway.place.map, parent: doorway.id, rank: ranks[i]!, side: null, x: null, y: null }
    draft.update('topic', topic.id, { place })
  })
}
