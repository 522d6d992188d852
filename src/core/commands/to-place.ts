import { refuse } from '../changes/problem'
import { readIndentedText } from '../formats/indented-text'
import { type MapId, TopicId } from '../records/ids'
import { isRoot } from '../records/place'
import type { TopicRecord } from '../records/topic'
import { drawersOf } from '../tree/to-place'
import { blankTopic } from './blank-topic'
import { command, type NewChange, named, namedAll } from './command'
import { copyBranches } from './copy-branches'
import { hang, placesFor } from './hang'
import { headsOnly } from './move-topics'
import { plant, sizeToPlant } from './plant'
import { rowsOf } from './sides'

/** The drawer of a map, made where there is none yet. Refused where the map is gone. */
export function drawerOf(change: NewChange, map: MapId): TopicRecord {
  const place = { kind: 'to place' as const, map: change.map(map).id }
  return (
    drawersOf(change.records, map)[0] ?? change.create('topic', blankTopic(change.newId(TopicId), place, 'To place'))
  )
}

/**
 * Pours ideas into the drawer of a map, line by line; indentation says what hangs on what. Refused where the map is gone,
 * for nothing, and for more than can be made at once. O(lines).
 */
export const pourToPlace = command((change, { map, text }: { map: MapId; text: string }) => {
  const items = readIndentedText(text)
  const count = sizeToPlant(items, 'pour')
  const planted = plant(change, drawerOf(change, map), items)
  const label = `Keep ${count === 1 ? named(items[0]!.text) : `${count} ideas`} to be placed`
  const made = new Map(planted.map(({ item, topic }) => [item, topic.id]))
  return { label, select: items.map((item) => made.get(item)!) }
})

/**
 * Takes branches off their maps, with all that belongs to them, into the drawer of a map. Refused where nothing is left to take,
 * and for roots. O(topics of the branches, where they change maps).
 */
export const putToPlace = command((change, args: { topics: readonly TopicId[]; map: MapId }) => {
  const heads = headsOnly(change.records, args.topics)
  if (heads.length === 0) refuse('gone', 'There is nothing to put away.')
  if (heads.some(isRoot)) refuse('root', 'The root of a map stays where it is.')
  hang(change, heads, { parent: drawerOf(change, args.map), after: 'last' })
  return { label: `Put ${namedAll(heads, 'branches')} away to be placed`, select: [] }
})

/** Puts copies of topics into the drawer, with what hangs on them, of a map. Refused where nothing is left to copy. */
export const copyToPlace = command((change, args: { topics: readonly TopicId[]; map: MapId }) => {
  const heads = headsOnly(change.records, args.topics)
  if (heads.length === 0) refuse('gone', 'There is nothing to copy.')
  const weights = heads.map((head) => rowsOf(change.records, head))
  const places = placesFor(change.records, { parent: drawerOf(change, args.map), after: 'last' }, weights)
  const made = copyBranches(
    change,
    heads.map((head, i) => ({ head, place: places[i]! })),
  )
  return {
    label: `Put ${heads.length === 1 ? 'a copy' : `${heads.length} copies`} away to be placed`,
    select: heads.map(({ id }) => made.get(id)!),
  }
})
