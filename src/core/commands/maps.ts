import { refuse } from '../changes/problem'
import { type CollectionId, MapId, TopicId } from '../records/ids'
import type { Look, MapLook } from '../records/look'
import type { Records } from '../records/records'
import { titleOf } from '../text/title'
import { blankTopic } from './add-topic'
import { Draft, type Making, named, type Outcome } from './command'
import { nextHomeDoorway } from './home-doorways'

/** Creates a map with its root topic inside a draft that other commands go on with. */
export function createMap(
  draft: Draft,
  title: string,
  rootText: string,
  homeDoorway: TopicId | null,
  dress: { look: MapLook | null; branchLook: Look | null } = { look: null, branchLook: null },
): { map: MapId; root: TopicId } {
  const map = draft.newId(MapId)
  const root = draft.newId(TopicId)
  const shape = { layout: 'both', spacing: 1, numbering: null, look: dress.look } as const
  draft.create('map', { id: map, title: titleOf(title), homeDoorway, ...shape, trashed: false })
  const place = { map, parent: null, rank: 'a0', side: null, x: null, y: null }
  draft.create('topic', { ...blankTopic(root, place, rootText), branchLook: dress.branchLook })
  return { map, root }
}

/** Makes a map with one topic. The first map of a collection becomes its home map. */
export function makeMap(records: Records, args: { collection: CollectionId; title: string }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const { map, root } = createMap(draft, args.title, args.title, null)
  if (records.get('collection', args.collection)?.homeMap === null)
    draft.update('collection', args.collection, { homeMap: map })
  return draft.outcome(`Make the map ${named(args.title)}`, [root])
}

/** Renames a map; its root and its home doorway follow where they carried the same name. */
export function renameMap(records: Records, args: { map: MapId; title: string }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const map = records.get('map', args.map) ?? refuse('gone', 'This map is gone.')
  const title = titleOf(args.title)
  if (title === '') refuse('invalid', 'A map needs a name.')
  draft.update('map', map.id, { title })
  for (const topic of [records.root(map.id), records.get('topic', map.homeDoorway)])
    if (topic && topic.text === map.title) draft.update('topic', topic.id, { text: title })
  return draft.outcome(`Rename ${named(map.title)}`)
}

/** Puts a map into the trash. Maps that were reached through it get another home doorway, or none. */
export function trashMap(records: Records, args: { map: MapId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const map = records.get('map', args.map) ?? refuse('gone', 'This map is gone.')
  for (const collection of records.all('collection'))
    if (collection.homeMap === map.id)
      refuse('invalid', 'This is the home map of the collection. Choose another home map first.')
  draft.update('map', map.id, { trashed: true })
  const leaving = new Set([...records.topicsOf(map.id)].map((topic) => topic.id as string))
  for (const id of leaving)
    for (const below of records.mapsArrivingBy(id))
      draft.update('map', below.id, { homeDoorway: nextHomeDoorway(records, below.id, leaving) })
  return draft.outcome(`Put ${named(map.title)} into the trash`)
}

/** Takes a map out of the trash. A home doorway that leads elsewhere by now is replaced by another one, or none. */
export function restoreMap(records: Records, args: { map: MapId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const map = records.get('map', args.map) ?? refuse('gone', 'This map is gone.')
  const doorway = records.get('topic', map.homeDoorway)
  const homeDoorway =
    doorway?.opensMap === map.id && !doorway.trashed ? doorway.id : nextHomeDoorway(records, map.id, new Set())
  draft.update('map', map.id, { trashed: false, homeDoorway })
  return draft.outcome(`Take ${named(map.title)} out of the trash`)
}

export function renameCollection(
  records: Records,
  args: { collection: CollectionId; title: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const title = titleOf(args.title)
  if (title === '') refuse('invalid', 'A collection needs a name.')
  draft.update('collection', args.collection, { title })
  return draft.outcome('Rename the collection')
}

export function chooseHomeMap(
  records: Records,
  args: { collection: CollectionId; map: MapId },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const map = records.get('map', args.map) ?? refuse('gone', 'This map is gone.')
  draft.update('collection', args.collection, { homeMap: map.id })
  return draft.outcome(`Make ${named(map.title)} the home map`)
}
