import fc from 'fast-check'
import { expect, test } from 'vitest'
import { encloseSorted, joinBands, makeBand, mapOfSorted, putUnderHeading } from '../../../src/core/commands/bands'
import { pourToPlace } from '../../../src/core/commands/to-place'
import { Lexicon } from '../../../src/core/matching/lexicon'
import type { TopicId } from '../../../src/core/records/ids'
import { sideOf } from '../../../src/core/records/place'
import { bandsInOrder, sortingTable } from '../../../src/core/sorting/bands'
import { suggest } from '../../../src/core/sorting/suggestions'
import { drawersOf, toPlaceOn } from '../../../src/core/tree/to-place'
import { english } from '../../../src/server/lexicon/lexicon'
import { plot, refusal } from '../gardens'

const IDEAS = [
  'Block the south ditch with peat dams',
  'Repair the timber dam at the weir',
  'A path for wheelchairs to the pond',
  'Read the dipwells every second week',
  'Count dragonflies at the pond',
  'Train volunteers to read dipwells',
  'Invite the village school in May',
  'A dam of boards at the north ditch',
  'School visits in autumn',
]

function poured() {
  const { garden, map } = plot()
  garden.do((records, newIds) => pourToPlace(records, { map, text: IDEAS.join('\n') }, newIds))
  const holder = drawersOf(garden.records, map)[0]!.id
  const ids = (...texts: string[]) =>
    texts.map((text) => toPlaceOn(garden.records, map).find((topic) => topic.text.includes(text))!.id)
  const table = (marked: readonly string[] = []) =>
    sortingTable(garden.records, drawersOf(garden.records, map), ({ id }) => marked.includes(id))
  const shown = (marked: readonly string[] = []) =>
    [...bandsInOrder(table(marked).bands)].map(({ band, level }) => [
      level,
      band.topic.text,
      ...band.items.map(({ text }) => text),
    ])
  return { garden, map, holder, ids, table, shown }
}

test('items go into bands, bands into bands, and nothing is lost on the way', () => {
  const { garden, holder, ids, table, shown } = poured()
  expect(table().pool).toHaveLength(IDEAS.length)
  const make = (title: string, items: TopicId[]) =>
    garden.do((records, newIds) => makeBand(records, { holder, title, items }, newIds)).select[0]!
  const dams = make('Dams', ids('south ditch', 'timber'))
  const boards = make('Boards', ids('north ditch'))
  const water = garden.do((r, m) => putUnderHeading(r, { holder, title: 'Water', bands: [dams, boards] }, m)).select[0]!
  expect(shown()).toEqual([
    [0, 'Water'],
    [1, 'Dams', IDEAS[0], IDEAS[1]],
    [1, 'Boards', IDEAS[7]],
  ])
  garden.do((r, m) => joinBands(r, { into: dams, from: boards }, m))
  expect(shown()).toEqual([
    [0, 'Water'],
    [1, 'Dams', IDEAS[0], IDEAS[1], IDEAS[7]],
  ])
  expect(table().pool).toHaveLength(6)
  // A band is a band while it is called one: empty, it is an item again.
  const empty = make('Later', [])
  expect(table().pool).toHaveLength(7)
  expect(shown([empty]).at(-1)).toEqual([0, 'Later'])
  expect(refusal(() => garden.do((r, m) => joinBands(r, { into: dams, from: water }, m)))).not.toBe('')
})

test('what was sorted becomes a map with a doorway to it', () => {
  const { garden, holder, ids } = poured()
  const dams = garden.do((r, m) =>
    makeBand(r, { holder, title: 'Dams', items: ids('south ditch', 'timber', 'north ditch') }, m),
  ).select[0]!
  const made = garden.do((r, m) =>
    mapOfSorted(r, { topics: [dams], title: 'Water', doorwayBelow: garden.topic('Garden') }, m),
  )
  const doorway = garden.records.need('topic', made.select[0]!)
  expect(
    garden
      .text(doorway.opensMap!)
      .split('\n')
      .map((line) => line.trim().replace(/^- /, ''))
      .filter(Boolean),
  ).toEqual(['Water', 'Dams', IDEAS[0], IDEAS[1], IDEAS[7]])
  expect(garden.records.need('map', doorway.opensMap).homeDoorway).toBe(doorway.id)
})

test('what was sorted becomes enclosures, one within the other', () => {
  const { garden, holder, ids } = poured()
  const dams = garden.do((r, m) => makeBand(r, { holder, title: 'Dams', items: ids('south ditch', 'timber') }, m))
    .select[0]!
  const water = garden.do((r, m) => makeBand(r, { holder, title: 'Water', items: [dams, ...ids('dipwells every')] }, m))
    .select[0]!
  garden.do((r, m) => encloseSorted(r, { topics: [water], parent: garden.topic('Spring') }, m))
  const frames = [...garden.records.all('enclosure')].map(({ title, topics }) => [
    title,
    topics.map((id) => garden.records.need('topic', id).text),
  ])
  expect(frames).toEqual([
    ['Dams', [IDEAS[0], IDEAS[1]]],
    ['Water', [IDEAS[0], IDEAS[1], IDEAS[3]]],
  ])
  expect(
    garden.records
      .children(garden.topic('Spring'))
      .map(({ text }) => text)
      .slice(-3),
  ).toEqual([IDEAS[0], IDEAS[1], IDEAS[3]])
})

test('on a root, what is in one frame stands on one side', () => {
  const { garden, map, holder, ids } = poured()
  const bands = [ids('south ditch', 'timber', 'north ditch'), ids('dipwells every', 'Train')].map(
    (items, i) => garden.do((r, m) => makeBand(r, { holder, title: `Band ${i}`, items }, m)).select[0]!,
  )
  garden.do((r, m) => encloseSorted(r, { topics: bands, parent: garden.records.root(map)!.id }, m))
  for (const { topics } of garden.records.all('enclosure'))
    expect(new Set(topics.map((id) => sideOf(garden.records.need('topic', id)))).size).toBe(1)
})

test('what speaks of the same is suggested as a band, with the words that say so', () => {
  const items = IDEAS.map((text, i) => ({ id: String(i), text }))
  const { bands, homes } = suggest(items, [], english())
  const found = bands.map(({ items: ids, words }) => [ids.map((id) => IDEAS[Number(id)]), words])
  expect(found).toContainEqual([[IDEAS[6], IDEAS[8]], ['school']])
  expect(found).toContainEqual([[IDEAS[3], IDEAS[5]], expect.arrayContaining(['dipwells', 'read'])])
  expect(found.find(([ids]) => ids!.includes(IDEAS[0]!))![0]).toEqual(expect.arrayContaining([IDEAS[0], IDEAS[7]]))
  expect(homes).toEqual([])
  const band = { id: 'b', text: 'Dams and ditches', items: [IDEAS[0]!] }
  expect(suggest(items.slice(7), [band], english()).homes).toMatchObject([{ item: '7', band: 'b' }])
})

test('suggestions name no item twice, and none without a reason', () => {
  const word = fc.constantFrom('dam', 'ditch', 'pond', 'school', 'path', 'moss', 'fence', 'permit')
  const text = fc.array(word, { minLength: 1, maxLength: 4 }).map((words) => words.join(' '))
  fc.assert(
    fc.property(fc.array(text, { maxLength: 30 }), (texts) => {
      const items = texts.map((each, i) => ({ id: String(i), text: each }))
      const { bands } = suggest(items, [], Lexicon.EMPTY)
      const all = bands.flatMap(({ items: ids }) => ids)
      expect(new Set(all).size).toBe(all.length)
      for (const { items: ids, words } of bands) {
        expect(ids.length).toBeGreaterThan(1)
        expect(words.length).toBeGreaterThan(0)
      }
    }),
  )
})
