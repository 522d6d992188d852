import type { Edit } from '../../core/changes/edit'
import { kinds } from '../../core/records/kinds'
import type { Records } from '../../core/records/records'
import { endsOf } from '../../core/records/reference-path'
import type { Grant, Homes } from '../../core/rights/grant'
import type { Client } from '../database'
import { isRecordId, loadInto } from '../records/tables'
import { grantsOf, homesOf } from './rights'
import { loadStanding } from './standing'

/** What is open to somebody, and the ways home by which it is found. */
export interface Limits {
  grants: readonly Grant[]
  homes: Homes
}

/** Read under the lock of the collection, this holds until the change is committed. */
export async function limitsOf(client: Client, collection: string, person: string): Promise<Limits> {
  const [given, homes] = await Promise.all([grantsOf(client, collection, [person]), homesOf(client, collection)])
  return { grants: given[0]!, homes }
}

/** Loads what holding a change against limits looks at: see `problemWithReach`. */
export async function loadForLimits(
  client: Client,
  collection: string,
  records: Records,
  edits: readonly Edit[],
): Promise<void> {
  const ends = edits.flatMap(({ kind, id, after }) => [
    { kind: kind as string, id },
    ...kinds[kind].references.flatMap((reference) => endsOf(after, reference)),
  ])
  const topics = edits.flatMap(({ kind, id }) => (kind === 'topic' ? id : []))
  await Promise.all([
    loadStanding(
      client,
      collection,
      records,
      ends.filter(({ id }) => isRecordId(id)),
    ),
    loadInto(records, client, 'map', collection, 'AND home_doorway = ANY($2)', [topics]),
  ])
}
