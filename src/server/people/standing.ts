import { kinds, type RecordKind, referencesTo } from '../../core/records/kinds'
import type { Records } from '../../core/records/records'
import { type End, endsOf } from '../../core/records/reference-path'
import type { Client } from '../database'
import { GIVEN, isTable, leadsTo, loadByIds, loadInto } from '../records/tables'

/**
 * Loads some records with all that tells on which maps they stand: what carries them, and what they are a part of. For
 * `standsOn`. At most three rounds: a file, what attaches it, and the topic of that.
 */
export async function loadStanding(
  client: Client,
  collection: string,
  records: Records,
  ends: readonly End[],
): Promise<void> {
  const asked = new Set<string>()
  for (let wave = [...ends]; wave.length > 0; ) {
    const ids = new Map<RecordKind, string[]>()
    for (const { kind, id } of wave) {
      if (asked.has(`${kind} ${id}`) || !isTable(kind)) continue
      asked.add(`${kind} ${id}`)
      const known = ids.get(kind)
      if (known) known.push(id)
      else ids.set(kind, [id])
    }
    await Promise.all(
      [...ids].flatMap(([kind, wanted]) => [
        loadByIds(records, client, kind, collection, GIVEN, [wanted]),
        ...carriersOf(kind).map(({ from, reference }) =>
          loadInto(records, client, from, collection, `AND ${leadsTo(from, reference, kind, '$2')}`, [wanted]),
        ),
      ]),
    )
    wave = [...ids].flatMap(([kind, wanted]) => wanted.flatMap((id) => wholesOf(records, kind, id)))
  }
}

/** What carries records of a kind, or shows them as its own. */
const carriersOf = (kind: RecordKind) =>
  kinds[kind].seenEverywhere ? [] : referencesTo(kind).filter(({ reference }) => reference.seen === 'here')

/** What a record, or what carries it, is a part of. A topic tells its map itself. */
function wholesOf(records: Records, kind: RecordKind, id: string): End[] {
  const parts = carriersOf(kind).flatMap(({ from, reference }) =>
    [...records.referring(from, reference, { kind, id })].map((record) => ({ kind: from, id: record.id as string })),
  )
  const record = records.get(kind, id)
  if (!record || kind === 'topic') return parts
  for (const reference of kinds[kind].references)
    if (reference.hold === 'inside') parts.push(...(endsOf(record, reference) as typeof parts))
  return parts
}
