import { type Change, type Edit, joinEdits, revertEdits } from '../changes/edit'
import { prepareChange } from '../changes/prepare'
import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import { hangs, parentOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { command, namedAll } from './command'
import { evenSidesOf, isLopsided, sharesOut } from './sides'

/** The places of those branches of a root that change sides when they are shared out again. */
function evened(records: Records, root: TopicRecord): { id: TopicId; place: TopicRecord['place'] }[] {
  const branches = records.children(root.id)
  return evenSidesOf(records, branches).flatMap((side, i) => {
    const { id, place } = branches[i]!
    return hangs(place) && place.side !== side ? [{ id, place: { ...place, side } }] : []
  })
}

/**
 * Shares the first-level branches out again so that both sides are about equally high; what is held to its side
 * stays. Refused where the map is gone. O(topics shown on the map).
 */
export const evenOutSides = command((change, args: { map: MapId }) => {
  const root = change.records.root(args.map) ?? refuse('gone', 'This map is gone.')
  for (const { id, place } of evened(change.records, root)) change.update('topic', id, { place })
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

/**
 * A change together with what evens out the sides of a map that it would leave lopsided: so branches find their balance
 * as a map grows. A branch that the change itself puts on a side stays there, and with it everything else.
 */
export function withEvenSides(records: Records, change: Change): Change {
  if (!change.edits.some(growsOrShrinks)) return change
  const prepared = prepareChange(records, change.edits, false)
  if (!prepared.ok) return change
  const more: Edit[] = []
  const maps = new Set<string>()
  for (const { kind, id } of prepared.edits) if (kind === 'topic') maps.add(records.need('topic', id).place.map)
  for (const map of maps) {
    const root = records.root(map)
    const layout = root && (root.layout ?? records.get('map', map)?.layout)
    if (!root || !layout || !sharesOut(layout) || !isLopsided(records, root)) continue
    const placed = prepared.edits.some(
      (edit) =>
        edit.kind === 'topic' &&
        edit.before !== null &&
        edit.after.place !== undefined &&
        parentOf({ place: edit.after.place }) === root.id,
    )
    if (placed) continue
    for (const { id, place } of evened(records, root))
      more.push({ kind: 'topic', id, before: { place: records.need('topic', id).place }, after: { place } })
  }
  revertEdits(records, prepared.edits)
  return more.length === 0 ? change : { ...change, edits: joinEdits([...change.edits, ...more]) }
}
