import { v7 as uuid } from 'uuid'
import { beforeAll, expect, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { blankTopic } from '../../src/core/commands/blank-topic'
import { ChangeId, CrosslinkId, MapId, NoteId, TopicId } from '../../src/core/records/ids'
import type { TopicRecord } from '../../src/core/records/topic'
import { createCollection } from '../../src/server/collections'
import { commitChanges, unlimited } from '../../src/server/commit/commit-changes'
import { loadTouched } from '../../src/server/commit/load-touched'
import { database, transaction } from '../../src/server/database'
import { createGuest } from '../../src/server/people/people'

/** Topics of a map: the root, and what hangs on it, with a note at the first and a cross-link from there to the last. */
const BELOW = 8
interface Plot {
  topics: TopicRecord[]
  note: NoteId
}

function plot(): { plot: Plot; edits: Edit[] } {
  const [map, note, link] = [MapId.parse(uuid()), NoteId.parse(uuid()), CrosslinkId.parse(uuid())]
  const look = { layout: 'both' as const, spacing: 1, numbering: null, look: null }
  const root = blankTopic(TopicId.parse(uuid()), { kind: 'root', map }, 'Garden')
  const topics = Array.from({ length: BELOW }, (_, i) => {
    const place = { kind: 'arranged' as const, map, parent: root.id, rank: `a${i}`, side: null }
    return { ...blankTopic(TopicId.parse(uuid()), place, `Bed ${i}`), note: i === 0 ? note : null }
  })
  const to = { kind: 'topic' as const, id: topics.at(-1)!.id }
  const edits: Edit[] = [
    {
      kind: 'map',
      id: map,
      before: null,
      after: { id: map, title: 'Garden', homeDoorway: null, ...look, trashed: false },
    },
    { kind: 'note', id: note, before: null, after: { id: note, text: 'Sow early.', joinedInto: null, trashed: false } },
    ...[root, ...topics].map((topic): Edit => ({ kind: 'topic', id: topic.id, before: null, after: topic })),
    {
      kind: 'crosslink',
      id: link,
      before: null,
      after: { id: link, from: topics[0]!.id, to, label: '', drawn: 'line', trashed: false },
    },
  ]
  return { plot: { topics: [root, ...topics], note }, edits }
}

/** A collection of so many maps, and one of them. */
async function planted(maps: number): Promise<{ collection: string; plot: Plot }> {
  const author = unlimited(await transaction(createGuest))
  const collection = await transaction((client) => createCollection(client, author.id, 'Gardens'))
  const plots = Array.from({ length: maps }, plot)
  for (let i = 0; i < maps; i += 50) {
    const edits = plots.slice(i, i + 50).flatMap((each) => each.edits)
    const change = { id: ChangeId.parse(uuid()), label: 'Plant', edits, undoes: null }
    expect(await commitChanges(collection, [{ change, author }])).toMatchObject([{ ok: true }])
  }
  return { collection, plot: plots[Math.floor(maps / 2)]!.plot }
}

/** How many rows of each table are read before a change is committed; by indexes, as all are read where tables are small. */
const rowsRead = (collection: string, edits: Edit[]): Promise<Record<string, number>> =>
  transaction(async (client) => {
    await client.query('SET LOCAL enable_seqscan = off')
    const counted = async () => (await client.query<{ name: string; rows: number }>(READ)).rows
    // What the connection has read before may be counted still.
    const before = new Map((await counted()).map(({ name, rows }) => [name, rows]))
    await loadTouched(client, collection, edits)
    const read = (await counted()).map(({ name, rows }): [string, number] => [name, rows - (before.get(name) ?? 0)])
    return Object.fromEntries(read.filter(([, rows]) => rows > 0))
  })
const READ = `
  SELECT relname AS name, (COALESCE(seq_tup_read, 0) + COALESCE(idx_tup_fetch, 0))::int AS rows
  FROM pg_stat_xact_user_tables WHERE COALESCE(seq_tup_read, 0) + COALESCE(idx_tup_fetch, 0) > 0 ORDER BY relname`

const reworded = (id: string, before: object, after: object, kind = 'topic') => [{ kind, id, before, after } as Edit]
const CHANGES: Record<string, (plot: Plot) => Edit[]> = {
  'a topic is reworded': ({ topics }) => reworded(topics[1]!.id, { text: 'Bed 0' }, { text: 'Peas' }),
  'a topic is folded': ({ topics }) => reworded(topics[1]!.id, { folded: false }, { folded: true }),
  'a topic is trashed': ({ topics }) => reworded(topics[1]!.id, { trashed: false }, { trashed: true }),
  'a topic is moved': ({ topics }) => {
    const { place } = topics[1]!
    return reworded(topics[1]!.id, { place }, { place: { ...place, parent: topics[2]!.id } })
  },
  'a note is written': ({ note }) => reworded(note, { text: 'Sow early.' }, { text: 'Sow late.' }, 'note'),
  'a topic is added': ({ topics }) => {
    const place = {
      kind: 'arranged' as const,
      map: topics[0]!.place.map,
      parent: topics[0]!.id,
      rank: 'b0',
      side: null,
    }
    const topic = blankTopic(TopicId.parse(uuid()), place, 'Leeks')
    return [{ kind: 'topic', id: topic.id, before: null, after: topic }]
  },
  'a link is drawn': ({ topics }) => {
    const id = CrosslinkId.parse(uuid())
    const to = { kind: 'topic' as const, id: topics[4]!.id }
    return [
      {
        kind: 'crosslink',
        id,
        before: null,
        after: { id, from: topics[3]!.id, to, label: '', drawn: 'line', trashed: false },
      },
    ]
  },
}

let few: Awaited<ReturnType<typeof planted>>
let many: Awaited<ReturnType<typeof planted>>
beforeAll(async () => {
  many = await planted(1_000)
  few = await planted(10)
  await database().query('ANALYZE')
}, 120_000)

test.each(Object.entries(CHANGES))(
  'as much is read where %s in a collection of 10 maps as in one of 1,000',
  async (_, make) => {
    const [ofFew, ofMany] = [
      await rowsRead(few.collection, make(few.plot)),
      await rowsRead(many.collection, make(many.plot)),
    ]
    expect(ofMany).toEqual(ofFew)
    const all = Object.values(ofMany).reduce((sum, rows) => sum + rows, 0)
    expect(all).toBeGreaterThan(0)
    expect(all).toBeLessThan(200)
  },
)
