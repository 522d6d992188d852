import type { ToldChange } from '../changes/edit'
import type { ChangeId } from '../records/ids'
import type { RecordKind } from '../records/kinds'
import type { FarTopic, MapDigest, MapSnapshot } from '../records/snapshot'
import { mayRead, type Reach, reachesAll } from './grant'

/** The rows of maps that are open to somebody, naming no others. */
export function openRows(rows: readonly MapDigest[], reach: Reach): MapDigest[] {
  if (reachesAll(reach)) return [...rows]
  const isOpen = (map: string) => mayRead(reach, map)
  return rows
    .filter(({ id }) => isOpen(id))
    .map((row) => ({
      ...row,
      folder: null,
      parentMap: row.parentMap && isOpen(row.parentMap) ? row.parentMap : null,
      homeDoorway: row.parentMap && isOpen(row.parentMap) ? row.homeDoorway : null,
      opens: row.opens.filter(isOpen),
      linked: row.linked.filter(({ map }) => isOpen(map)),
    }))
}

/** A topic at the far end of a link, with the note that it carries. */
export interface FarCarrier extends FarTopic {
  note: string | null
}

/**
 * What somebody may know of a map that is open to them and of what stands around it. Where a link leads to what is not open,
 * nothing is told of the far end; links that come from there are left out, and so are tags and looks that are not used here.
 */
export function openSnapshot(
  snapshot: Omit<MapSnapshot, 'farTopics'>,
  far: readonly FarCarrier[],
  reach: Reach,
): MapSnapshot {
  const { records } = snapshot
  const farTopics = far.filter(({ map }) => mayRead(reach, map)).map(({ id, map, text }) => ({ id, map, text }))
  if (reachesAll(reach)) return { ...snapshot, farTopics }
  const topics = new Set([...(records.topic ?? []), ...farTopics].map(({ id }) => id as string))
  const notes = new Set<string | null>((records.topic ?? []).map(({ note }) => note))
  for (const { map, note } of far) if (mayRead(reach, map)) notes.add(note)
  const tags = new Set(
    (records.topic ?? []).flatMap(({ tags, gathers }): string[] => (gathers?.tag ? [...tags, gathers.tag] : tags)),
  )
  const kept: MapSnapshot['records'] = {
    ...records,
    crosslink: (records.crosslink ?? []).filter(({ from }) => topics.has(from)),
    enclosure: (records.enclosure ?? []).filter((enclosure) => enclosure.topics.some((id) => topics.has(id))),
    note: (records.note ?? []).filter(({ id }) => notes.has(id)),
    tag: (records.tag ?? []).filter(({ id }) => tags.has(id)),
    look: [],
    folder: [],
    template: [],
    search: [],
  }
  return { ...snapshot, records: kept, farTopics }
}

/** Kinds of records of which a change names every map on which they stand. */
const PLACED: ReadonlySet<RecordKind> = new Set([
  'map',
  'topic',
  'crosslink',
  'weblink',
  'attachment',
  'enclosure',
  'comment',
] as const)
const NOBODY = '00000000-0000-0000-0000-000000000000'

/**
 * A change as a person may hear of it: as it is where all that it touches is open to them; else only that there was one, on
 * which of the maps that are open to them. Whose and which it was they hear of their own.
 */
export function openChange<Told extends ToldChange>(change: Told, person: string, reach: Reach): Told {
  if (reachesAll(reach)) return change
  const { maps, edits } = change
  const isOpen = maps !== null && maps.length > 0 && maps.every((map) => mayRead(reach, map))
  if (isOpen && (edits ?? []).every(({ kind }) => PLACED.has(kind))) return change
  const outline = { ...change, edits: null, maps: maps?.filter((map) => mayRead(reach, map)) ?? null }
  if (change.person === person) return outline
  return {
    ...outline,
    id: NOBODY as ChangeId,
    undoes: null,
    step: null,
    person: NOBODY,
    personName: '',
    label: 'A change',
  }
}
