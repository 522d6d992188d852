import fc from 'fast-check'
import { expect, test } from 'vitest'
import { revertEdits } from '../../../src/core/changes/edit'
import { prepareChange } from '../../../src/core/changes/prepare'
import { Refusal } from '../../../src/core/changes/problem'
import { addLooseTopic } from '../../../src/core/commands/add-loose-topic'
import { addTopic } from '../../../src/core/commands/add-topic'
import { bringBack } from '../../../src/core/commands/bring-back'
import type { Making, Outcome } from '../../../src/core/commands/command'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { evenOutSides } from '../../../src/core/commands/even-out-sides'
import { makeMap, trashMap } from '../../../src/core/commands/maps'
import { mergeMaps } from '../../../src/core/commands/merge-maps'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { restoreTopic } from '../../../src/core/commands/restore-topic'
import { setText } from '../../../src/core/commands/set-text'
import { splitOff } from '../../../src/core/commands/split-off'
import { writeNote } from '../../../src/core/commands/write-note'
import { planMerge } from '../../../src/core/matching/merge-plan'
import type { Records } from '../../../src/core/records/records'
import { isInTrash } from '../../../src/core/tree/walk'
import { COLLECTION, contents, Garden } from '../gardens'

/** An act, chosen by numbers: which command, and which of the topics and maps that are there. */
const act = fc.tuple(fc.nat(11), fc.nat(999), fc.nat(999))

function perform(records: Records, making: Making, [which, a, b]: [number, number, number]): Outcome {
  const topics = [...records.all('topic')].sort((x, y) => (x.id < y.id ? -1 : 1))
  const maps = [...records.all('map')].filter((map) => !map.trashed).sort((x, y) => (x.id < y.id ? -1 : 1))
  const topic = topics[a % topics.length]!
  const other = topics[b % topics.length]!
  const map = maps[a % maps.length]!
  const otherMap = maps[b % maps.length]!
  switch (which) {
    case 0:
      return addTopic(records, { parent: topic.id, after: b % 2 ? 'last' : null, text: `topic ${b % 7}` }, making)
    case 1:
      return setText(records, { topic: topic.id, text: `text ${b % 7}` }, making)
    case 2:
      return moveTopics(
        records,
        { topics: [topic.id], parent: other.id, after: 'last', side: b % 3 ? null : 'left' },
        making,
      )
    case 3:
      return deleteTopics(records, { topics: [topic.id, other.id] }, making)
    case 4:
      return restoreTopic(records, { topic: topic.id }, making)
    case 5:
      return splitOff(records, { topic: topic.id }, making)
    case 6:
      return bringBack(records, { topic: topic.id }, making)
    case 7:
      return mergeMaps(
        records,
        { plan: planMerge(records, map.id, [otherMap.id], b % 2 ? 'beside' : 'combined') },
        making,
      )
    case 8:
      return addCrosslink(
        records,
        { from: topic.id, to: b % 2 ? { topic: other.id } : { map: map.id }, drawn: 'quiet' },
        making,
      )
    case 9:
      return writeNote(records, { topic: topic.id, base: '', text: `note ${b % 5}` }, making)
    case 10:
      return b % 3 === 0
        ? trashMap(records, { map: map.id }, making)
        : addLooseTopic(records, { map: map.id, x: a, y: b, text: 'loose' }, making)
    default:
      return b % 2
        ? makeMap(records, { collection: COLLECTION, title: `map ${b % 5}` }, making)
        : evenOutSides(records, { map: map.id }, making)
  }
}

/** What must hold whatever people do; told independently of the checks in core. */
function expectInvariants(records: Records): void {
  for (const map of records.all('map')) {
    if (map.trashed) continue
    expect(records.heads(map.id).filter((topic) => topic.place.x === null && !topic.trashed)).toHaveLength(1)
    const seen = new Set<string>()
    for (
      let at: typeof map | undefined = map;
      at;
      at = records.get('map', records.get('topic', at.homeDoorway)?.place.map ?? null)
    ) {
      expect(seen.has(at.id)).toBe(false)
      seen.add(at.id)
    }
  }
  for (const topic of records.all('topic')) {
    const parent = records.get('topic', topic.place.parent)
    if (topic.place.parent) expect(parent?.place.map).toBe(topic.place.map)
    if (topic.note) expect(records.get('note', topic.note)).toBeDefined()
    const ranks = records.childrenWithTrashed(topic.id).map((child) => child.place.rank)
    expect(new Set(ranks).size).toBe(ranks.length)
    const seen = new Set<string>()
    for (let at: typeof topic | undefined = topic; at; at = records.get('topic', at.place.parent)) {
      expect(seen.has(at.id)).toBe(false)
      seen.add(at.id)
    }
  }
  for (const link of records.all('crosslink'))
    expect(
      records.get('topic', link.from) && (records.get('topic', link.toTopic) ?? records.get('map', link.toMap)),
    ).toBeDefined()
}

test('whatever people do, the invariants hold and every change inverts exactly', () => {
  fc.assert(
    fc.property(fc.array(act, { minLength: 1, maxLength: 30 }), (acts) => {
      const garden = new Garden()
      garden.grow('Garden\nSpring\n  Sow peas\nSummer\n  Pick beans\n    Dwarf')
      garden.grow('Neighbour\nSpring\n  Prune')
      const { records, making } = garden
      for (const chosen of acts) {
        let outcome: Outcome
        try {
          outcome = perform(records, making, chosen)
        } catch (error) {
          if (error instanceof Refusal || error instanceof RangeError) continue
          throw error
        }
        const before = contents(records)
        const prepared = prepareChange(records, outcome.change.edits, true)
        if (!prepared.ok) {
          expect(contents(records)).toEqual(before)
          continue
        }
        const after = contents(records)
        revertEdits(records, prepared.edits)
        expect(contents(records)).toEqual(before)
        expect(prepareChange(records, prepared.edits, true).ok).toBe(true)
        expect(contents(records)).toEqual(after)
        expectInvariants(records)
      }
    }),
    { numRuns: 400 },
  )
}, 120_000)

test('a topic in the trash is found to be there from anywhere below', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  Sow peas')
  const peas = garden.records.need('topic', garden.topic('Sow peas'))
  garden.do((records, making) => deleteTopics(records, { topics: [garden.topic('Spring')] }, making))
  expect(isInTrash(garden.records, peas)).toBe(true)
})
