import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { ToldChange } from '../../core/changes/edit'
import { adoptMap } from '../../core/commands/adopt-map'
import { saidBy } from '../../core/matching/common-origin'
import { ChangeId, CollectionId, MapId, type TopicId } from '../../core/records/ids'
import type { CopyOf, TopicRecord } from '../../core/records/topic'
import { mayRead } from '../../core/rights/grant'
import { wholeCollection } from '../collections'
import { changeOf } from '../commit/history'
import { submitChange } from '../commit/queue'
import { authorOf } from '../commit/receive-changes'
import { prepared, snapshot } from '../database'
import { roomLeft } from '../files/quota'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { reachIn } from '../people/rights'

/** A map of another collection that is to be copied into this one. The id is that of the change: sent again, nothing is done twice. */
export const Adopt = z.strictObject({ id: ChangeId, from: CollectionId, map: MapId })

const CREATED = `
  SELECT e->>'kind' AS kind, e->'after' AS after
  FROM change c CROSS JOIN LATERAL jsonb_array_elements(c.edits) e
  WHERE c.collection = $1 AND $2 = ANY(c.maps) AND e->>'kind' IN ('topic', 'note') AND jsonb_typeof(e->'before') = 'null'`

/** What the topics of a map said when they came into their collection. What was removed from history is not known any more. */
async function firstSaid(collection: string, map: string): Promise<Map<TopicId, CopyOf>> {
  type Row = { kind: 'note'; after: { id: string; text: string } } | { kind: 'topic'; after: TopicRecord }
  const { rows } = await snapshot((client) => prepared<Row>(client, CREATED, [collection, map]))
  const notes = new Map<string, string>()
  for (const { kind, after } of rows) if (kind === 'note') notes.set(after.id, after.text)
  const said = new Map<TopicId, CopyOf>()
  for (const { kind, after } of rows)
    if (kind === 'topic') said.set(after.id, saidBy(after, after.note ? notes.get(after.note) : undefined))
  return said
}

/** Copies a map that is open to somebody in another collection into this one. Its files count for the room that this one has. */
export async function adopt(
  member: Member,
  { id, from, map }: z.infer<typeof Adopt>,
): Promise<{ change: ToldChange; map: MapId }> {
  const { collection, person } = member
  if (from === collection) throw new Failure(400, 'This map is in this collection already.')
  const before = await changeOf(collection, id)
  if (before?.person === person.id) return adopted(before)
  if (!mayRead(await reachIn(person.id, from), map))
    throw new Failure(404, 'There is no such map, or it is not open to you.')
  const [{ records: there }, { records: here }, first] = await Promise.all([
    wholeCollection(from),
    wholeCollection(collection),
    firstSaid(from, map),
  ])
  if (!there.root(map) || there.get('map', map)?.trashed || there.collection()?.trashed)
    throw new Failure(404, 'This map is gone.')
  const { change } = adoptMap(here, { there, map, first }, { newId: uuid })
  const bytes = change.edits.reduce((sum, edit) => sum + (edit.kind === 'file' ? (edit.after.size ?? 0) : 0), 0)
  if (bytes > (bytes > 0 ? await roomLeft(collection, person) : 0))
    throw new Failure(413, 'There is no room left for the files of this map. Nothing was changed.')
  const result = await submitChange(collection, { change: { ...change, id }, author: authorOf(member) })
  if (!result.ok) throw new Failure(result.problem.code === 'forbidden' ? 403 : 409, result.problem.message)
  return adopted(result.change)
}

function adopted(change: ToldChange): { change: ToldChange; map: MapId } {
  const made = change.edits?.find(({ kind, before }) => kind === 'map' && before === null)
  if (!made) throw new Failure(409, 'This change did something else.')
  return { change: { ...change, edits: null }, map: MapId.parse(made.id) }
}
