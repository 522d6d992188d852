import fc from 'fast-check'
import { addLooseTopic } from '../../src/core/commands/add-loose-topic'
import { addTopic } from '../../src/core/commands/add-topic'
import { addBadge } from '../../src/core/commands/badges'
import { carryNote } from '../../src/core/commands/carried-notes'
import type { IdSource, Outcome } from '../../src/core/commands/command'
import { addComment } from '../../src/core/commands/comments'
import { addCrosslink } from '../../src/core/commands/crosslinks'
import { deleteTopics } from '../../src/core/commands/delete-topics'
import { makeChildMap, makeDoorway } from '../../src/core/commands/doorways'
import { encloseTopics } from '../../src/core/commands/enclosures'
import { foldTopics } from '../../src/core/commands/fold-topics'
import { setBranchLayout } from '../../src/core/commands/layouts'
import { changeLook } from '../../src/core/commands/looks'
import { moveTopics } from '../../src/core/commands/move-topics'
import { fixNumber, numberBranch } from '../../src/core/commands/numbering'
import { detachTopics, placeByHand } from '../../src/core/commands/places'
import { gatherList } from '../../src/core/commands/searches'
import { setDates } from '../../src/core/commands/set-dates'
import { setTask } from '../../src/core/commands/set-task'
import { splitOff } from '../../src/core/commands/split-off'
import { tagTopics } from '../../src/core/commands/tags'
import { addWeblink } from '../../src/core/commands/weblinks'
import { writeNote } from '../../src/core/commands/write-note'
import { PersonId } from '../../src/core/records/ids'
import { LayoutKind, NumberingScheme } from '../../src/core/records/layout'
import type { Records } from '../../src/core/records/records'
import { NOTHING_ASKED } from '../../src/core/records/search'
import { isInTrash } from '../../src/core/tree/walk'
import { Garden } from './gardens'

const AUTHOR = { id: PersonId.parse('00000000-0000-7000-a000-000000000001'), name: 'Ines' }
const at = (seed: number) => ({ x: (seed % 900) - 300, y: ((seed * 7) % 700) - 300 })
const one = <T>(of: readonly T[], seed: number): T => of[seed % of.length]!

/** What makes a topic one of a kind that an act may not have thought of; chosen by a number, for a topic and another one. */
const KINDS: readonly ((records: Records, topic: string, other: string, seed: number) => (ids: IdSource) => Outcome)[] =
  [
    (r, topic, _, seed) => (ids) =>
      addTopic(
        r,
        {
          parent: topic as never,
          after: 'last',
          text: one(['1. Peas', '1.2 Rows', 'Ditch', 'moor\nbog', '地図'], seed),
        },
        ids,
      ),
    (r, topic, _, seed) => (ids) =>
      addLooseTopic(r, { map: r.need('topic', topic).place.map, ...at(seed), text: 'On its own' }, ids),
    (r, topic, _, seed) => (ids) => detachTopics(r, { topics: [{ topic: topic as never, at: at(seed) }] }, ids),
    (r, topic, _, seed) => (ids) =>
      placeByHand(r, { topics: [{ topic: topic as never, at: at(seed), side: seed % 2 ? 'left' : 'right' }] }, ids),
    (r, topic, other) => (ids) => encloseTopics(r, { topics: [topic, other] as never, title: 'Frame' }, ids),
    (r, topic) => (ids) => encloseTopics(r, { topics: [topic] as never, title: '' }, ids),
    (r, topic) => (ids) => gatherList(r, { topic: topic as never, asked: { ...NOTHING_ASKED, task: 'left' } }, ids),
    (r, topic) => (ids) => makeChildMap(r, { topic: topic as never, with: 'nothing' }, ids),
    (r, topic) => (ids) => splitOff(r, { topic: topic as never }, ids),
    (r, topic, other) => (ids) => makeDoorway(r, { topic: topic as never, map: r.need('topic', other).place.map }, ids),
    (r, topic) => (ids) => writeNote(r, { topic: topic as never, base: '', text: '# Heading\n\n- [ ] a task' }, ids),
    (r, topic, other) => (ids) => carryNote(r, { of: topic as never, also: other as never }, ids),
    (r, topic, _, seed) => (ids) =>
      numberBranch(r, { topics: [topic] as never, scheme: one(NumberingScheme.options, seed) }, ids),
    (r, topic) => (ids) => fixNumber(r, { topic: topic as never, number: 'IV' }, ids),
    (r, topic) => (ids) => foldTopics(r, { topics: [topic] as never, folded: true }, ids),
    (r, topic, _, seed) => (ids) =>
      setDates(
        r,
        { topics: [topic] as never, dates: { start: '2027-03-15', end: seed % 2 ? '2027-04-01' : null } },
        ids,
      ),
    (r, topic) => (ids) => setTask(r, { topics: [topic] as never, task: 'open', today: '2026-12-01' }, ids),
    (r, topic, _, seed) => (ids) =>
      tagTopics(r, { topics: [topic] as never, name: seed % 2 ? 'wet' : 'internal' }, ids),
    (r, topic) => (ids) => addBadge(r, { topics: [topic] as never, badge: 'emoji:🌱' as never }, ids),
    (r, topic) => (ids) => addWeblink(r, { topic: topic as never, url: 'https://example.org/bog', title: '' }, ids),
    (r, topic) => (ids) =>
      addComment(
        r,
        {
          topic: topic as never,
          text: 'Is this so?',
          quote: '',
          answers: null,
          author: AUTHOR,
          at: '2026-12-01T08:00:00Z',
          mentions: [],
        },
        ids,
      ),
    (r, topic, other, seed) => (ids) =>
      addCrosslink(
        r,
        {
          from: topic as never,
          to: { kind: 'topic', id: other as never },
          drawn: one(['line', 'quiet', 'selected'] as const, seed),
        },
        ids,
      ),
    (r, topic) => (ids) => {
      const [enclosure] = [...r.all('enclosure')]
      return addCrosslink(r, { from: topic as never, to: { kind: 'enclosure', id: enclosure!.id }, drawn: 'line' }, ids)
    },
    (r, topic, other) => (ids) =>
      addCrosslink(
        r,
        { from: topic as never, to: { kind: 'map', id: r.need('topic', other).place.map }, drawn: 'line' },
        ids,
      ),
    (r, topic, _, seed) => (ids) =>
      setBranchLayout(r, { topics: [topic] as never, layout: one(LayoutKind.options, seed) }, ids),
    (r, topic, other) => (ids) =>
      moveTopics(r, { topics: [topic] as never, parent: other as never, after: 'last', side: null }, ids),
    (r, topic) => (ids) => deleteTopics(r, { topics: [topic] as never }, ids),
    (r, topic) => (ids) =>
      changeLook(
        r,
        {
          target: { kind: 'branches', topics: [topic] as never },
          set: { fill: '#ffd166', shape: 'pill' as never },
          clear: [],
        },
        ids,
      ),
  ]

/** Numbers that make a collection in which topics of every kind hang together. */
export const mixing = fc.array(fc.tuple(fc.nat(KINDS.length - 1), fc.nat(99), fc.nat(99), fc.nat(999)), {
  minLength: 10,
  maxLength: 70,
})

/** Topics that can be seen, in the order of their ids. */
export const seenTopics = (records: Records) =>
  [...records.all('topic')]
    .filter(
      (topic) =>
        topic.place.kind !== 'to place' && !isInTrash(records, topic) && !records.get('map', topic.place.map)?.trashed,
    )
    .sort((a, b) => (a.id < b.id ? -1 : 1))

/** A collection of a few maps with loose, placed, enclosed, gathered, numbered, folded, dated topics, doorways, carried notes and links. */
export function mixedPlot(kinds: readonly (readonly [number, number, number, number])[]): Garden {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer\n  Pick beans\n    Dwarf\n    Climbing\nAutumn\nWinter')
  garden.grow('Pond\nInflow\n  Sluice\nFish\n  Tench')
  for (const [kind, a, b, seed] of kinds) {
    const topics = seenTopics(garden.records)
    const [topic, other] = [one(topics, a), one(topics, b)]
    try {
      garden.do((records, ids) => KINDS[kind]!(records, topic.id, other.id, seed)(ids))
    } catch {
      // What is refused is no matter here: the next kind comes.
    }
  }
  return garden
}
