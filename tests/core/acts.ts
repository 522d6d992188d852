import fc from 'fast-check'
import { addLooseTopic } from '../../src/core/commands/add-loose-topic'
import { addTopic } from '../../src/core/commands/add-topic'
import { bringBack } from '../../src/core/commands/bring-back'
import type { IdSource, Outcome } from '../../src/core/commands/command'
import { addCrosslink } from '../../src/core/commands/crosslinks'
import { deleteTopics } from '../../src/core/commands/delete-topics'
import { duplicateBranches } from '../../src/core/commands/duplicate-branches'
import { encloseTopics } from '../../src/core/commands/enclosures'
import { evenOutSides } from '../../src/core/commands/even-out-sides'
import { setBranchLayout } from '../../src/core/commands/layouts'
import { makeMap, trashMap } from '../../src/core/commands/maps'
import { mergeMaps } from '../../src/core/commands/merge-maps'
import { moveTopics } from '../../src/core/commands/move-topics'
import { detachTopics, placeByHand } from '../../src/core/commands/places'
import { demoteHeading, joinTopics, promoteToHeading } from '../../src/core/commands/regroup'
import { restoreTopic } from '../../src/core/commands/restore-topic'
import { setText } from '../../src/core/commands/set-text'
import { sortChildren } from '../../src/core/commands/sort-children'
import { splitOff } from '../../src/core/commands/split-off'
import { pourToPlace, putToPlace } from '../../src/core/commands/to-place'
import { writeNote } from '../../src/core/commands/write-note'
import { SOURCE_ENDS } from '../../src/core/matching/decisions'
import { planMerge } from '../../src/core/matching/merge-plan'
import type { Records } from '../../src/core/records/records'
import { isInTrash } from '../../src/core/tree/walk'
import { COLLECTION } from './gardens'

/** An act, chosen by numbers: which command, and which of the topics and maps that are there. */
export const act = fc.tuple(fc.nat(19), fc.nat(999), fc.nat(999))

/** The outcome of an act on these records; throws a Refusal or a RangeError where it cannot be done. */
export function perform(records: Records, newIds: IdSource, [which, a, b]: [number, number, number]): Outcome {
  const everything = [...records.all('topic')].sort((x, y) => (x.id < y.id ? -1 : 1))
  // As the interface offers it: what is seen, and for restoring what lies in the trash itself.
  const topics = everything.filter(
    (topic) => topic.place.kind !== 'to place' && (which === 4 ? topic.trashed : !isInTrash(records, topic)),
  )
  if (topics.length === 0) throw new RangeError('There is nothing to do this with.')
  const maps = [...records.all('map')].filter((map) => !map.trashed).sort((x, y) => (x.id < y.id ? -1 : 1))
  const topic = topics[a % topics.length]!
  const other = topics[b % topics.length]!
  const map = maps[a % maps.length]!
  const otherMap = maps[b % maps.length]!
  switch (which) {
    case 0:
      return addTopic(records, { parent: topic.id, after: b % 2 ? 'last' : null, text: `topic ${b % 7}` }, newIds)
    case 1:
      return setText(records, { topic: topic.id, text: `text ${b % 7}` }, newIds)
    case 2:
      return moveTopics(
        records,
        { topics: [topic.id], parent: other.id, after: 'last', side: b % 3 ? null : 'left' },
        newIds,
      )
    case 3:
      return deleteTopics(records, { topics: [topic.id, other.id] }, newIds)
    case 4:
      return restoreTopic(records, { topic: topic.id }, newIds)
    case 5:
      return splitOff(records, { topic: topic.id }, newIds)
    case 6:
      return bringBack(records, { topic: topic.id }, newIds)
    case 7:
      return mergeMaps(
        records,
        {
          plan: {
            ...planMerge(records, map.id, [otherMap.id], b % 2 ? 'beside' : 'combined'),
            manner: {
              title: b % 3 ? null : `merged ${b % 7}`,
              isNew: b % 5 === 0,
              sourcesThen: SOURCE_ENDS[b % 3]!,
              linksFollow: b % 7 === 0,
            },
          },
        },
        newIds,
      )
    case 8:
      return addCrosslink(
        records,
        { from: topic.id, to: b % 2 ? { kind: 'topic', id: other.id } : { kind: 'map', id: map.id }, drawn: 'quiet' },
        newIds,
      )
    case 9:
      return writeNote(records, { topic: topic.id, base: '', text: `note ${b % 5}` }, newIds)
    case 10:
      return b % 3 === 0
        ? trashMap(records, { map: map.id }, newIds)
        : addLooseTopic(records, { map: map.id, x: a, y: b, text: 'loose' }, newIds)
    case 12:
      if (b % 5 === 0) return putToPlace(records, { topics: [topic.id], map: map.id }, newIds)
      if (b % 5 === 1) return pourToPlace(records, { map: map.id, text: 'later\n  still later' }, newIds)
      return placeByHand(
        records,
        { topics: [{ topic: topic.id, at: { x: a, y: b }, side: b % 2 ? 'left' : 'right' }] },
        newIds,
      )
    case 13:
      return detachTopics(records, { topics: [{ topic: topic.id, at: { x: a, y: b } }] }, newIds)
    case 14:
      return sortChildren(records, { topic: topic.id, by: b % 2 ? 'text' : 'number' }, newIds)
    case 15:
      return b % 2
        ? promoteToHeading(records, { topic: topic.id }, newIds)
        : demoteHeading(records, { topic: topic.id }, newIds)
    case 16:
      return joinTopics(records, { topics: [topic.id, other.id] }, newIds)
    case 17:
      return duplicateBranches(records, { topics: [topic.id], onto: b % 2 ? other.id : null }, newIds)
    case 18:
      return encloseTopics(records, { topics: [topic.id, other.id], title: 'Frame' }, newIds)
    case 19:
      return setBranchLayout(records, { topics: [topic.id], layout: b % 2 ? 'both' : 'down' }, newIds)
    default:
      return b % 2
        ? makeMap(records, { collection: COLLECTION, title: `map ${b % 5}` }, newIds)
        : evenOutSides(records, { map: map.id }, newIds)
  }
}
