import { generateKeyBetween } from 'fractional-indexing'
import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, test } from 'vitest'
import { applyEdits, type Change, type Edit } from '../../src/core/changes/edit'
import { unpackEdits } from '../../src/core/changes/packed'
import { blankTopic } from '../../src/core/commands/blank-topic'
import { ChangeId, MapId, TopicId } from '../../src/core/records/ids'
import { RECORD_KINDS } from '../../src/core/records/kinds'
import { Records } from '../../src/core/records/records'
import type { TopicRecord } from '../../src/core/records/topic'
import { createCollection, wholeCollection } from '../../src/server/collections'
import { type Author, beginCommit, commitChanges, unlimited } from '../../src/server/commit/commit-changes'
import { changesAfter } from '../../src/server/commit/history'
import { isFull, submitChange } from '../../src/server/commit/queue'
import { database, transaction } from '../../src/server/database'
import { createGuest } from '../../src/server/people/people'
import { loadCollection } from '../../src/server/records/tables'

let author: Author
beforeAll(async () => {
  author = unlimited(await transaction(createGuest))
})

const map = MapId.parse(uuid())
const root = TopicId.parse(uuid())

const change = (edits: Edit[], id = uuid()): Change => ({ id: ChangeId.parse(id), label: 'Test', edits, undoes: null })
const create = (topic: TopicRecord): Edit => ({ kind: 'topic', id: topic.id, before: null, after: topic })
const below = (parent: TopicId, rank: string, id = TopicId.parse(uuid())): TopicRecord =>
  blankTopic(id, { kind: 'arranged', map, parent, rank, side: null }, `Topic ${rank}`)

/** An empty collection with a map of one topic. */
async function planted(): Promise<string> {
  const collection = await transaction((client) => createCollection(client, author.id, 'Test'))
  const look = { layout: 'both' as const, spacing: 1, numbering: null, look: null }
  const head: Edit[] = [
    {
      kind: 'map',
      id: map,
      before: null,
      after: { id: map, title: 'Map', homeDoorway: null, ...look, trashed: false },
    },
    create(blankTopic(root, { kind: 'root', map }, 'Map')),
  ]
  const [result] = await commitChanges(collection, [{ change: change(head), author }])
  expect(result!.ok).toBe(true)
  return collection
}

/** A repeatable source of whole numbers below a bound. */
function dice(seed: number): (below: number) => number {
  let state = seed
  return (bound) => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648
    return Math.floor((state / 2_147_483_648) * bound)
  }
}

/** What several people might send at once: new topics at ranks that others take too, texts, moves, and what cannot be. */
function storm(seed: number, count: number): Change[] {
  const roll = dice(seed)
  const topics: TopicId[] = [root]
  const some = () => topics[roll(topics.length)]!
  const rank = () => {
    let key = generateKeyBetween(null, null)
    for (let i = roll(4); i > 0; i--) key = generateKeyBetween(key, null)
    return key
  }
  const changes: Change[] = []
  for (let i = 0; i < count; i++) {
    const kind = roll(10)
    if (kind < 5) {
      const topic = below(some(), rank())
      topics.push(topic.id)
      changes.push(change([create(topic)]))
    } else if (kind < 7)
      changes.push(change([{ kind: 'topic', id: some(), before: { text: '' }, after: { text: `Text ${i}` } }]))
    else if (kind === 7) {
      const place = { kind: 'arranged' as const, map, parent: some(), rank: rank(), side: null }
      changes.push(change([{ kind: 'topic', id: some(), before: {}, after: { place } }]))
    } else if (kind === 8)
      changes.push(
        change([{ kind: 'topic', id: some(), before: { trashed: false }, after: { trashed: roll(2) === 0 } }]),
      )
    // One that was sent before, a topic that exists already, and one below nothing.
    else if (changes.length > 0 && roll(3) === 0) changes.push(changes[roll(changes.length)]!)
    else if (roll(2) === 0) changes.push(change([create(below(root, rank(), some()))]))
    else changes.push(change([create(below(TopicId.parse(uuid()), rank()))]))
  }
  return changes
}

async function everything(collection: string) {
  const { records, number } = await wholeCollection(collection, (client, into) =>
    loadCollection(client, into, collection),
  )
  return { number, all: sorted(records) }
}

const sorted = (records: Records) =>
  RECORD_KINDS.filter((kind) => kind !== 'collection').flatMap((kind) =>
    [...records.all(kind)].sort((a, b) => (a.id < b.id ? -1 : 1)),
  )

describe('batches', () => {
  test.each([1, 2, 3])('come to the same as one change after the other (storm %i)', async (seed) => {
    const [batched, single] = [await planted(), await planted()]
    const changes = storm(seed, 240)
    const roll = dice(seed + 100)
    const outcomes: string[] = []
    for (let i = 0; i < changes.length; ) {
      const size = 1 + roll(12)
      const batch = changes.slice(i, i + size).map((change) => ({ change, author }))
      const results = await commitChanges(batched, batch)
      outcomes.push(...results.map((result) => (result.ok ? String(result.change.number) : result.problem.code)))
      i += size
    }
    const alone: string[] = []
    for (const change of changes) {
      const [result] = await commitChanges(single, [{ change, author }])
      alone.push(result!.ok ? String(result!.change.number) : result!.problem.code)
    }
    expect(outcomes).toEqual(alone)
    expect(outcomes).toEqual(expect.arrayContaining(['exists', 'loop', 'reference']))
    expect(await everything(batched)).toEqual(await everything(single))
  })

  test.each([1, 2, 3])(
    'that begin before the last is through leave what their changes come to (storm %i)',
    async (seed) => {
      const collection = await planted()
      const roll = dice(seed + 200)
      const changes = storm(seed, 240)
      const given: number[] = []
      let followed = 0
      const onTheirWay: Promise<void>[] = []
      for (let i = 0; i < changes.length; ) {
        const size = 1 + roll(3)
        const batch = changes.slice(i, i + size).map((change) => ({ change, author }))
        i += size
        const { goesAtOnce, results } = beginCommit(collection, batch)
        if (goesAtOnce && onTheirWay.length > 0) followed++
        onTheirWay.push(
          results.then((all) => {
            for (const result of all) if (result.ok) given.push(result.change.number)
          }),
        )
        if (!goesAtOnce || onTheirWay.length > 1) await onTheirWay.shift()
      }
      await Promise.all(onTheirWay)
      expect(followed).toBeGreaterThan(10)
      const { number, all } = await everything(collection)
      // Those that were sent twice are answered with the number they had.
      expect([...new Set(given)].sort((a, b) => a - b)).toEqual(Array.from({ length: number - 1 }, (_, i) => i + 2))
      const told = await transaction((client) => changesAfter(client, collection, 0, 1_000))
      // What is more than is read at once is told without its edits, and nothing is left out.
      const bare = await transaction((client) => changesAfter(client, collection, 0, 1_000, 0))
      expect(bare).toEqual(told.map((each) => ({ ...each, edits: null })))
      const replayed = new Records()
      for (const { edits } of told) applyEdits(replayed, unpackEdits(replayed, edits!).edits)
      expect(sorted(replayed)).toEqual(all)
      const { rows } = await database().query('SELECT topics FROM map_digest WHERE collection = $1', [collection])
      const shown = replayed.root(map)
      const count = (id: TopicId): number => replayed.children(id).reduce((sum, child) => sum + count(child.id), 1)
      expect(rows).toEqual([{ topics: count(shown!.id) }])
    },
  )

  test('go on where another process has committed in between', async () => {
    const collection = await planted()
    const first = below(root, 'a0')
    await commitChanges(collection, [{ change: change([create(first)]), author }])
    // What another process does is not seen by what this one keeps.
    await database().query('UPDATE collection_counter SET last = last + 1 WHERE collection = $1', [collection])
    await database().query(
      `INSERT INTO change (collection, number, id, person, person_name, label, edits) VALUES ($1, 3, $2, $3, 'x', 'x', '[]')`,
      [collection, uuid(), author.id],
    )
    await database().query(`UPDATE topic SET trashed = true, text = 'Elsewhere' WHERE collection = $1 AND id = $2`, [
      collection,
      first.id,
    ])
    const [result] = await commitChanges(collection, [{ change: change([create(below(first.id, 'a0'))]), author }])
    expect(result).toMatchObject({ ok: true, change: { number: 4 } })
    const { all } = await everything(collection)
    expect(all).toContainEqual(expect.objectContaining({ id: first.id, text: 'Elsewhere', trashed: true }))
  })

  test('take an id or a rank that is taken already as one after the other would', async () => {
    const collection = await planted()
    const first = below(root, 'a0')
    await commitChanges(collection, [{ change: change([create(first)]), author }])
    const again = change([create({ ...first, text: 'Somebody else' })])
    const beside = change([create(below(root, 'a0'))])
    const results = await commitChanges(collection, [
      { change: again, author },
      { change: beside, author },
    ])
    expect(results).toMatchObject([{ ok: false, problem: { code: 'exists' } }, { ok: true }])
    const { all } = await everything(collection)
    const ranks = all.flatMap((record) => ('place' in record && 'rank' in record.place ? record.place.rank : []))
    expect(new Set(ranks).size).toBe(ranks.length)
    expect(all).toContainEqual(expect.objectContaining({ id: first.id, text: first.text }))
  })
})

test('a queue says when it is full, and takes on again when what waited is through', async () => {
  const collection = await planted()
  let rank = generateKeyBetween(null, null)
  const all = Array.from({ length: 2_100 }, () => {
    rank = generateKeyBetween(rank, null)
    return submitChange(collection, { change: change([create(below(root, rank))]), author })
  })
  expect(isFull(collection)).toBe(true)
  expect((await Promise.all(all)).every(({ ok }) => ok)).toBe(true)
  expect(isFull(collection)).toBe(false)
}, 60_000)
