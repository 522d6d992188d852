import { applyEdits, type Edit, revertEdits } from '../changes/edit'
import type { Problem } from '../changes/problem'
import { kinds, type RecordKind } from '../records/kinds'
import type { Records } from '../records/records'
import { type End, endsOf } from '../records/reference-path'
import {
  type Grant,
  type Homes,
  mayComment,
  mayEdit,
  mayRead,
  type Reach,
  reachesAll,
  reachOf,
  withMapsBelow,
} from './grant'
import { standsOn } from './standing'

const forbidden = (message: string): Problem => ({ code: 'forbidden', message })
const NOT_OPEN = forbidden('This touches maps that are not open to you for editing. Nothing was changed.')
const LEADS_OUT = forbidden('This leads to something that is not open to you. Nothing was changed.')
const MOVES_MAPS = forbidden('This would hang maps elsewhere that are not open to you. Nothing was changed.')

/**
 * Whether somebody may make a change to whom only some maps are open; null where they may. It holds before the change and
 * after it: whatever is edited stands on maps that they may edit, whatever is newly named is open to them, and no map
 * changes its way home, nor any map below it, but by who may edit it, since grants with child maps follow that way.
 *
 * `records` are as they stand after the change, with what carries the touched and named records, and the maps that arrive by
 * touched topics. They are altered on the way and are then as they were. Linear in the edits and what carries them.
 */
export function problemWithReach(
  records: Records,
  edits: readonly Edit[],
  grants: readonly Grant[],
  homes: Homes,
): Problem | null {
  const before = reachOf(grants, homes)
  if (reachesAll(before, 'editor')) return null
  const homesAfter = homesAs(records, edits, homes)
  const moved = [...homesAfter].filter(([map, parent]) => homes.get(map) !== parent).map(([map]) => map)
  for (const map of homes.keys()) if (!homesAfter.has(map)) moved.push(map)
  const created = new Set(edits.flatMap((edit) => (edit.before === null ? [keyOf(edit)] : [])))
  const mayMove = (id: string) => created.has(keyOf({ kind: 'map', id })) || mayEdit(before, id)
  if (moved.length > 0 && ![...withMapsBelow(moved, homesAfter)].every(mayMove)) return MOVES_MAPS
  const after = reachOf(grants, homesAfter)
  if (!edits.every((edit) => standsWithin(records, edit, after))) return NOT_OPEN
  revertEdits(records, edits)
  try {
    if (!edits.every((edit) => edit.before === null || standsWithin(records, edit, before))) return NOT_OPEN
    return edits.every((edit) => namesOnlyOpen(records, edit, created, before)) ? null : LEADS_OUT
  } finally {
    applyEdits(records, edits)
  }
}

/** Ids are made by clients: one can be that of records of several kinds. */
const keyOf = ({ kind, id }: { kind: string; id: string }) => `${kind} ${id}`

/** Whether all of a record is where somebody may edit, or, for a comment, comment. What stands nowhere is the collection's own. */
function standsWithin(records: Records, { kind, id }: Edit, reach: Reach): boolean {
  const record = records.get(kind, id)
  const maps = record ? standsOn(records, kind, record) : new Set<string>()
  const may = kind === 'comment' ? mayComment : mayEdit
  return maps.size > 0 && [...maps].every((map) => may(reach, map))
}

/** Whether what the new values of an edit lead to, and the old ones did not, is made by the change itself or open to read. */
function namesOnlyOpen(records: Records, edit: Edit, created: ReadonlySet<string>, reach: Reach): boolean {
  return kinds[edit.kind].references.every((reference) => {
    const known = new Set(edit.before ? endsOf(edit.before, reference).map(keyOf) : [])
    return endsOf(edit.after, reference).every(
      (end) => known.has(keyOf(end)) || created.has(keyOf(end)) || isOpen(records, end, reach),
    )
  })
}

/** Whether something of a record is on a map that is open. */
export function isOpen(records: Records, { kind, id }: End, reach: Reach): boolean {
  const record = records.get(kind as RecordKind, id)
  if (!record) return false
  if (kinds[kind as RecordKind].seenEverywhere) return true
  for (const map of standsOn(records, kind as RecordKind, record)) if (mayRead(reach, map)) return true
  return false
}

/** The ways home after a change: of the maps that it edits, and of those whose home doorway it moves. */
function homesAs(records: Records, edits: readonly Edit[], homes: Homes): Homes {
  const after = new Map(homes)
  const touched = new Set<string>()
  for (const { kind, id } of edits)
    if (kind === 'map') touched.add(id)
    else if (kind === 'topic') for (const map of records.mapsArrivingBy(id)) touched.add(map.id)
  for (const map of touched) {
    const doorway = records.get('map', map)?.homeDoorway ?? null
    if (doorway === null) after.delete(map)
    else {
      const topic = records.get('topic', doorway)
      if (topic) after.set(map, topic.place.map)
    }
  }
  return after
}
