import { v7 as uuid } from 'uuid'
import { beforeAll, expect, test } from 'vitest'
import type { ToldChange } from '../../src/core/changes/edit'
import { Refusal } from '../../src/core/changes/problem'
import { undoChange } from '../../src/core/changes/undo'
import { addTopic } from '../../src/core/commands/add-topic'
import { bringBack } from '../../src/core/commands/bring-back'
import type { IdSource, Outcome } from '../../src/core/commands/command'
import { addCrosslink } from '../../src/core/commands/crosslinks'
import { deleteTopics } from '../../src/core/commands/delete-topics'
import { encloseTopics, removeEnclosure } from '../../src/core/commands/enclosures'
import { makeMap, renameMap, restoreMap, trashMap } from '../../src/core/commands/maps'
import { moveTopics } from '../../src/core/commands/move-topics'
import { restoreTopic } from '../../src/core/commands/restore-topic'
import { splitOff } from '../../src/core/commands/split-off'
import { pourToPlace, putToPlace } from '../../src/core/commands/to-place'
import { writeNote } from '../../src/core/commands/write-note'
import { mapAtEnd } from '../../src/core/network/crosslinks'
import type { LinkEnd } from '../../src/core/records/crosslink'
import { ChangeId, CollectionId, type MapId, type TopicId } from '../../src/core/records/ids'
import { RECORD_KINDS } from '../../src/core/records/kinds'
import type { Records } from '../../src/core/records/records'
import type { MapDigest } from '../../src/core/records/snapshot'
import { everywhere } from '../../src/core/rights/grant'
import { topicsInOrder } from '../../src/core/tree/walk'
import { createCollection, mapSnapshot, wholeCollection } from '../../src/server/collections'
import { type Author, commitChanges, unlimited } from '../../src/server/commit/commit-changes'
import { snapshot, transaction } from '../../src/server/database'
import type { Member } from '../../src/server/http/endpoint'
import { createGuest } from '../../src/server/people/people'
import { digestsAfter } from '../../src/server/records/digests'
import { loadCollection } from '../../src/server/records/tables'
import { HeldState } from '../../src/views/sync/held-state'

let author: Author
beforeAll(async () => {
  author = unlimited(await transaction(createGuest))
})
const newIds: IdSource = { newId: uuid }

/** The rows as they follow from all records, counted one by one. */
function rowsOf(records: Records): MapDigest[] {
  const links = new Map<string, Map<string, number>>()
  const link = (from: string, to: string) => {
    const known = links.get(from) ?? new Map<string, number>()
    links.set(from, known.set(to, (known.get(to) ?? 0) + 1))
  }
  for (const crosslink of records.all('crosslink')) {
    if (crosslink.trashed) continue
    const a = records.need('topic', crosslink.from).place.map
    const b = mapAtEnd(records, crosslink)
    if (!b || a === b) continue
    link(a, b)
    link(b, a)
  }
  return [...records.all('map')]
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map(({ id, title, trashed, folder, inAtlas, homeDoorway }) => {
      const topics = [...topicsInOrder(records, id)]
      return {
        id,
        title,
        trashed,
        folder,
        inAtlas,
        homeDoorway,
        parentMap: records.get('topic', homeDoorway)?.place.map ?? null,
        topics: topics.length,
        opens: [...new Set(topics.flatMap(({ opensMap }) => opensMap ?? []))].sort(),
        linked: [...(links.get(id) ?? [])]
          .map(([map, count]) => ({ map: map as MapDigest['id'], links: count }))
          .sort((x, y) => y.links - x.links || (x.map < y.map ? -1 : 1)),
      }
    })
}

test.each([114, 120, 123])(
  'digest rows, and what browsers hold that hear only of one map, follow from the records (walk %i)',
  async (seed) => {
    const collection = await transaction((client) => createCollection(client, author.id, 'Test'))
    const person = { id: author.id, name: author.name, address: null }
    const member: Member = { person, collection, role: 'owner', reach: everywhere('owner') }
    const load = () => wholeCollection(collection, (client, into) => loadCollection(client, into, collection))
    let state = seed
    const roll = (bound: number) => {
      state = (state * 1_103_515_245 + 12_345) % 2_147_483_648
      return Math.floor((state / 2_147_483_648) * bound)
    }
    const known = new Map<string, { row: MapDigest; number: number }>()
    let told = -1
    const done: Outcome['change'][] = []

    const act = (records: Records): Outcome => {
      const topics = [...records.all('topic')]
        .filter(({ place }) => place.kind !== 'to place')
        .sort((a, b) => (a.id < b.id ? -1 : 1))
      const maps = [...records.all('map')].sort((a, b) => (a.id < b.id ? -1 : 1))
      const topic = (): TopicId => topics[roll(topics.length)]!.id
      const map = () => maps[roll(maps.length)]!.id
      const end = (): LinkEnd => {
        const enclosures = [...records.all('enclosure')]
        const notes = [...records.all('note')]
        const which = roll(4)
        if (which === 1) return { kind: 'map', id: map() }
        if (which === 2 && enclosures[0]) return { kind: 'enclosure', id: enclosures[roll(enclosures.length)]!.id }
        if (which === 3 && notes[0]) return { kind: 'note', id: notes[roll(notes.length)]!.id }
        return { kind: 'topic', id: topic() }
      }
      if (maps.length < 2)
        return makeMap(records, { collection: CollectionId.parse(collection), title: `Map ${maps.length}` }, newIds)
      const which = roll(17)
      if (which < 4) return addTopic(records, { parent: topic(), after: 'last', text: 'More' }, newIds)
      if (which === 4) return splitOff(records, { topic: topic() }, newIds)
      if (which === 5) return bringBack(records, { topic: topic() }, newIds)
      if (which === 6) return deleteTopics(records, { topics: [topic()] }, newIds)
      if (which === 7) return restoreTopic(records, { topic: topic() }, newIds)
      if (which < 10) return addCrosslink(records, { from: topic(), to: end(), drawn: 'line' }, newIds)
      if (which === 10)
        return moveTopics(records, { topics: [topic()], parent: topic(), after: 'last', side: null }, newIds)
      if (which === 11) return writeNote(records, { topic: topic(), base: '', text: 'A note' }, newIds)
      if (which === 12) return encloseTopics(records, { topics: [topic()], title: 'Around' }, newIds)
      if (which === 13) {
        const enclosures = [...records.all('enclosure')]
        const enclosure = enclosures[roll(enclosures.length || 1)]?.id
        return enclosure
          ? removeEnclosure(records, { enclosure }, newIds)
          : renameMap(records, { map: map(), title: `Name ${roll(99)}` }, newIds)
      }
      if (which === 14) return putToPlace(records, { topics: [topic()], map: map() }, newIds)
      if (which === 15) return pourToPlace(records, { map: map(), text: 'later\n  still later' }, newIds)
      if (done.length > 0 && roll(2) === 0) {
        const { change } = undoChange(records, done[roll(done.length)]!, ChangeId.parse(uuid()))
        if (change) return { change, select: [] }
      }
      const one = maps[roll(maps.length)]!
      return one.trashed ? restoreMap(records, { map: one.id }, newIds) : trashMap(records, { map: one.id }, newIds)
    }

    /** Browsers that each have one map open and hear of everything else only that it was. */
    const browsers = new Map<string, HeldState>()
    const reopen = async (held: HeldState, map: string): Promise<void> => {
      const incomplete = held.open((await mapSnapshot(member, map as MapId))!)
      for (const other of incomplete) await reopen(held, other)
    }
    const hear = async (change: ToldChange) => {
      for (const [map, held] of browsers) {
        const isSeen = change.maps === null || change.maps.includes(map as MapId)
        for (const other of held.commit([isSeen ? change : { ...change, edits: null }])) await reopen(held, other)
      }
    }
    const expectAllToHold = async () => {
      for (const [map, held] of browsers) {
        const { records, farTopics } = (await mapSnapshot(member, map as MapId))!
        for (const kind of RECORD_KINDS)
          for (const record of records[kind] ?? []) expect(held.records.get(kind, record.id)).toEqual(record)
        expect([...held.records.topicsOf(map)].map(({ id }) => id).sort()).toEqual(
          (records.topic ?? [])
            .filter(({ place }) => place.map === map)
            .map(({ id }) => id)
            .sort(),
        )
        for (const far of farTopics)
          expect(held.records.get('topic', far.id)?.text ?? held.farTopics.get(far.id)?.text).toBe(far.text)
      }
    }

    let committed = 0
    for (let step = 0; step < 90; step++) {
      const { records } = await load()
      let outcome: Outcome
      try {
        outcome = act(records)
      } catch (error) {
        if (error instanceof Refusal) continue
        throw error
      }
      const [result] = await commitChanges(collection, [{ change: outcome.change, author }])
      if (!result!.ok) continue
      committed++
      done.push(result!.change)
      await hear(result!.change)
      for (const { kind, id, before } of result!.change.edits)
        if (kind === 'map' && before === null && browsers.size < 4) {
          browsers.set(id, new HeldState())
          await reopen(browsers.get(id)!, id)
        }
      if (step % 4 > 0) continue
      await expectAllToHold()
      // What a browser knows that was told only what was altered.
      const now = await load()
      for (const row of await snapshot((client) => digestsAfter(client, collection, told)))
        known.set(row.id, { row, number: now.number })
      told = now.number
      const rows = [...known.values()].map(({ row }) => row).sort((a, b) => (a.id < b.id ? -1 : 1))
      expect(rows).toEqual(rowsOf(now.records))
    }
    expect(committed).toBeGreaterThan(40)
  },
  60_000,
)
