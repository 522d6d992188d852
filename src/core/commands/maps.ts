import { refuse } from '../changes/problem'
import { type CollectionId, MapId, TopicId } from '../records/ids'
import type { MapRecord } from '../records/map'
import type { TopicRecord } from '../records/topic'
import { titleOf } from '../text/title'
import { isInTrash } from '../tree/walk'
import { blankTopic } from './blank-topic'
import { command, type NewChange, named } from './command'
import { leaveHomeDoorways, mapsAbove, nextHomeDoorway, regainHomeDoorways } from './home-doorways'

/** A map begins like this, unless something is said of it. */
export const PLAIN_MAP = {
  homeDoorway: null,
  folder: null,
  inAtlas: null,
  layout: 'both',
  spacing: 1,
  numbering: null,
  look: null,
} as const

/** Creates a map with its root topic, as a part of a larger change. */
export function createMap(
  change: NewChange,
  title: string,
  rootText: string,
  shape: Partial<Pick<MapRecord, keyof typeof PLAIN_MAP>> = {},
): { map: MapId; root: TopicRecord } {
  const map = change.newId(MapId)
  change.create('map', { id: map, title: titleOf(title), ...PLAIN_MAP, ...shape, trashed: false })
  const root = change.create('topic', blankTopic(change.newId(TopicId), { kind: 'root', map }, rootText))
  return { map, root }
}

/** Makes a map the home map of a collection that has none yet. */
export function becomeHomeMap(change: NewChange, collection: CollectionId, map: MapId): void {
  if (change.records.get('collection', collection)?.homeMap === null)
    change.update('collection', collection, { homeMap: map })
}

/** Makes a map with one topic. The first map of a collection becomes its home map. */
export const makeMap = command((change, args: { collection: CollectionId; title: string }) => {
  const { map, root } = createMap(change, args.title, args.title)
  becomeHomeMap(change, args.collection, map)
  const label = args.title === '' ? 'Make a map' : `Make the map ${named(args.title)}`
  return { label, select: [root.id] }
})

/**
 * Renames a map; its root and its home doorway follow where they carried the same name.
 * Refused where the map is gone, and without a name.
 */
export const renameMap = command((change, args: { map: MapId; title: string }) => {
  const { records } = change
  const map = change.map(args.map)
  const title = titleOf(args.title)
  if (title === '') refuse('invalid', 'A map needs a name.')
  change.update('map', map.id, { title })
  for (const topic of [records.root(map.id), records.get('topic', map.homeDoorway)])
    if (topic && topic.text === map.title) change.update('topic', topic.id, { text: title })
  return { label: `Rename ${named(map.title)}`, select: [] }
})

/**
 * Puts a map into the trash. Maps that were reached through it get another home doorway, or none. Refused where it is
 * gone, and for the home map. O(topics of the map).
 */
export const trashMap = command((change, args: { map: MapId }) => {
  const { records } = change
  const map = change.map(args.map)
  if (records.collection()?.homeMap === map.id)
    refuse('invalid', 'This is the home map of the collection. Choose another home map first.')
  change.update('map', map.id, { trashed: true })
  leaveHomeDoorways(change, new Set([...records.topicsOf(map.id)].map(({ id }) => id)))
  return { label: `Put ${named(map.title)} into the trash`, select: [] }
})

/** Puts several maps into the trash as one step. Refused as `trashMap` is. O(topics of the maps). */
export const trashMaps = command((change, args: { maps: readonly MapId[] }) => {
  const maps = args.maps.map((id) => change.map(id))
  if (maps.length === 0) refuse('invalid', 'Choose maps first.')
  for (const { id } of maps) trashMap.within(change, { map: id })
  const name = maps.length === 1 ? named(maps[0]!.title) : `${maps.length} maps`
  return { label: `Put ${name} into the trash`, select: [] }
})

/**
 * Takes a map out of the trash. A home doorway that leads elsewhere by now is replaced by another one, or none; maps
 * that lost theirs when this one went are reached through it again. Refused where it is gone. O(topics of the map).
 */
export const restoreMap = command((change, args: { map: MapId }) => {
  const { records } = change
  const map = change.map(args.map)
  change.update('map', map.id, { trashed: false, homeDoorway: null })
  const before = records.get('topic', map.homeDoorway)
  const stays =
    before?.opensMap === map.id &&
    !isInTrash(records, before) &&
    before.place.map !== map.id &&
    !mapsAbove(records, before.place.map).includes(map.id)
  change.update('map', map.id, { homeDoorway: stays ? before.id : nextHomeDoorway(records, map.id, new Set()) })
  const topics = [...records.topicsOf(map.id)].filter((topic) => !isInTrash(records, topic))
  regainHomeDoorways(change, topics)
  return { label: `Take ${named(map.title)} out of the trash`, select: [] }
})

/** Gives the collection another name. Refused without one. */
export const renameCollection = command((change, args: { collection: CollectionId; title: string }) => {
  const title = titleOf(args.title)
  if (title === '') refuse('invalid', 'A collection needs a name.')
  change.update('collection', args.collection, { title })
  return { label: 'Rename the collection', select: [] }
})

/** Makes a map the one that the trail and the published site begin with. Refused where it is gone. */
export const chooseHomeMap = command((change, args: { collection: CollectionId; map: MapId }) => {
  const map = change.map(args.map)
  if (map.trashed) refuse('gone', 'This map lies in the trash.')
  change.update('collection', args.collection, { homeMap: map.id })
  return { label: `Make ${named(map.title)} the home map`, select: [] }
})
