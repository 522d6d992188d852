import { type Change, type Edit, type EditOf, joinEdits, revertEdits } from '../changes/edit'
import { prepareChange } from '../changes/prepare'
import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { Draft, type Making, named, type Outcome } from './command'
import { evenSidesOf, isLopsided } from './sides'

/** Edits that share the branches of a root out again. */
function evened(records: Records, root: TopicRecord): EditOf<'topic'>[] {
  const branches = records.children(root.id)
  return evenSidesOf(records, branches).flatMap((side, i): EditOf<'topic'>[] => {
    const { id, place } = branches[i]!
    return place.side === side ? [] : [{ kind: 'topic', id, before: { place }, after: { place: { ...place, side } } }]
  })
}

/** Shares the first-level branches out again so that both sides are about equally high; what is held to its side stays. */
export function evenOutSides(records: Records, args: { map: MapId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const root = records.root(args.map) ?? refuse('gone', 'This map is gone.')
  for (const edit of evened(records, root)) draft.update('topic', edit.id, edit.after)
  return draft.outcome('Even out the sides')
}

/** Holds first-level branches to the sides that they are on, or lets them change sides again. */
export function holdSides(
  records: Records,
  args: { topics: readonly TopicId[]; held: boolean },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  for (const id of args.topics) draft.update('topic', id, { held: args.held })
  const name = named(records.need('topic', args.topics[0]!).text)
  return draft.outcome(args.held ? `Hold ${name} to its side` : `Let ${name} change sides`, [...args.topics])
}

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
    if (!root || (layout !== 'both' && layout !== 'around') || !isLopsided(records, root)) continue
    const placed = prepared.edits.some(
      (edit) => edit.kind === 'topic' && edit.before !== null && edit.after.place?.parent === root.id,
    )
    if (!placed) more.push(...evened(records, root))
  }
  revertEdits(records, prepared.edits)
  return more.length === 0 ? change : { ...change, edits: joinEdits([...change.edits, ...more]) }
}
