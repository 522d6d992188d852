import { refuse } from '../changes/problem'
import { CrosslinkId, type TopicId } from '../records/ids'
import { hangs } from '../records/place'
import type { TopicRecord } from '../records/topic'
import { toPlaceOn } from '../tree/to-place'
import { command, type NewChange, named } from './command'
import { lead, PLAIN_CROSSLINK } from './crosslinks'
import { hang, placesFor, unfold } from './hang'
import { mapsAbove } from './home-doorways'
import { joinNotes } from './join-notes'
import { moveBelongings } from './move-belongings'
import { rowsOf } from './sides'
import { drawerOf } from './to-place'

/**
 * The reverse of splitting off: everything on the map that a topic opens comes back below the topic, and the map goes
 * into the trash. What its root carried, the topic carries; what was still to be placed there is so on the map of the topic. Other doorways to the map become cross-links to the
 * topic; links that would lead from the topic to itself go into the trash. Needs the records of both maps. Refused
 * where the topic opens no map, the map stands above its own doorway, or is the home map of the collection. O(topics
 * of the child map).
 */
export const bringBack = command((change, args: { topic: TopicId }) => {
  const { records } = change
  const doorway = change.topic(args.topic)
  const map = records.get('map', doorway.opensMap) ?? refuse('doorway', 'This topic opens no map.')
  const root = records.root(map.id) ?? refuse('gone', 'The map behind this topic is gone.')
  if (map.id === doorway.place.map || mapsAbove(records, doorway.place.map).includes(map.id))
    refuse('loop', 'This map is above its own doorway, so it cannot come back below it.')
  if (records.collection()?.homeMap === map.id)
    refuse('invalid', 'The home map of the collection cannot be brought back.')

  bringTopics(change, doorway, root)
  const toPlace = toPlaceOn(records, map.id)
  if (toPlace.length > 0) hang(change, toPlace, { parent: drawerOf(change, doorway.place.map), after: 'last' })
  joinNotes(change, doorway, root)
  change.update('topic', doorway.id, { opensMap: null })
  unfold(change, doorway)
  change.update('map', map.id, { homeDoorway: null, trashed: true })
  moveBelongings(change, root, doorway)
  for (const link of records.crosslinksTo('map', map.id)) lead(change, link, { to: { kind: 'topic', id: doorway.id } })
  for (const other of records.doorwaysTo(map.id)) {
    change.update('topic', other.id, { opensMap: null })
    const link = {
      id: change.newId(CrosslinkId),
      from: other.id,
      drawn: 'quiet' as const,
      ...PLAIN_CROSSLINK,
    }
    change.create('crosslink', { ...link, to: { kind: 'topic', id: doorway.id } })
  }
  return { label: `Bring back ${named(doorway.text)}`, select: [doorway.id] }
})

/** Everything that stands on the map, loose branches behind the rest; ranks are kept where nothing else hangs there. */
function bringTopics(change: NewChange, doorway: TopicRecord, root: TopicRecord): void {
  const { records } = change
  const loose = records.heads(root.place.map).filter(({ place }) => place.kind === 'loose')
  const coming = [...records.childrenWithTrashed(root.id), ...loose]
  const keepsRanks = loose.length === 0 && records.childrenWithTrashed(doorway.id).length === 0
  const weights = coming.map((topic) => rowsOf(records, topic))
  const places = placesFor(records, { parent: doorway, after: 'last' }, weights)
  coming.forEach(({ id, place }, i) => {
    const rank = keepsRanks && hangs(place) ? place.rank : places[i]!.rank
    change.update('topic', id, { place: { ...places[i]!, rank } })
  })
}
