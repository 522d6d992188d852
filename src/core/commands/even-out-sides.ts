import { type Change, type Edit, joinEdits, revertEdits } from '../changes/edit'
import { prepareChange } from '../changes/prepare'
import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import { hangs, parentOf, type Side } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { command, namedAll } from './command'
import { evenedSidesOf, sharesOut } from './sides'

/** First-level branches that change sides, as they stand and as they then do. */
type Moved = { topic: TopicRecord; place: TopicRecord['place']; side: Side }[]

function movedBy(records: Records, root: TopicRecord, sides: readonly Side[]): Moved {
  return records.children(root.id).flatMap((topic, i) => {
    const { place } = topic
    const side = sides[i]!
    return hangs(place) && place.side !== side ? [{ topic, side, place: { ...place, side } }] : []
  })
}

/**
 * Shares the first-level branches out so that both sides are as even as can be, with as few changing sides as will do; what is
 * held to its side stays. Refused where the map is gone. O(topics shown on the map).
 */
export const evenOutSides = command((change, args: { map: MapId }) => {
  const { records } = change
  const root = records.root(args.map) ?? refuse('gone', 'This map is gone.')
  for (const { topic, place } of movedBy(records, root, evenedSidesOf(records, root, 1)))
    change.update('topic', topic.id, { place })
  return { label: 'Even out the sides', select: [] }
})

/** Holds first-level branches to the sides that they are on, or lets them change sides again. Refused where one is gone. */
export const holdSides = command((change, args: { topics: readonly TopicId[]; held: boolean }) => {
  const topics = args.topics.map((id) => change.topic(id))
  for (const { id } of topics) change.update('topic', id, { held: args.held })
  const name = namedAll(topics, 'branches')
  const label = args.held
    ? `Hold ${name} to ${topics.length === 1 ? 'its side' : 'their sides'}`
    : `Let ${name} change sides`
  return { label, select: [...args.topics] }
})

const growsOrShrinks = (edit: Edit): boolean =>
  edit.kind === 'topic' && (edit.before === null || 'trashed' in edit.after || 'place' in edit.after)

/** A change, and which branches it has sent to the other side besides, for who tells of it. */
export interface Evened {
  change: Change
  went: { topic: TopicId; text: string; side: Side }[]
}

/**
 * A change together with what evens out the sides of a map that it would leave uneven: so branches find their balance
 * as a map grows. A branch that the change itself puts on a side stays there, and with it everything else.
 */
export function withEvenSides(records: Records, change: Change): Evened {
  const asItIs = { change, went: [] }
  if (!change.edits.some(growsOrShrinks)) return asItIs
  const prepared = prepareChange(records, change.edits, false)
  if (!prepared.ok) return asItIs
  const moved: Moved = []
  const maps = new Set<string>()
  for (const { kind, id } of prepared.edits) if (kind === 'topic') maps.add(records.need('topic', id).place.map)
  for (const map of maps) {
    const root = records.root(map)
    const layout = root && (root.layout ?? records.get('map', map)?.layout)
    if (!root || !layout || !sharesOut(layout)) continue
    const placed = prepared.edits.some(
      (edit) =>
        edit.kind === 'topic' &&
        edit.before !== null &&
        edit.after.place !== undefined &&
        parentOf({ place: edit.after.place }) === root.id,
    )
    if (!placed) moved.push(...movedBy(records, root, evenedSidesOf(records, root)))
  }
  revertEdits(records, prepared.edits)
  if (moved.length === 0) return asItIs
  const created = new Set<string>(change.edits.flatMap(({ id, before }) => (before === null ? [id] : [])))
  const more = moved.map(({ topic, place }): Edit => {
    return { kind: 'topic', id: topic.id, before: { place: topic.place }, after: { place } }
  })
  return {
    change: { ...change, edits: joinEdits([...change.edits, ...more]) },
    // What is new was nowhere before.
    went: moved.flatMap(({ topic, side }) =>
      created.has(topic.id) ? [] : [{ topic: topic.id, text: topic.text, side }],
    ),
  }
}
