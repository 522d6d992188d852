import { expect, test } from 'vitest'
import {
  chooseHomeMap,
  makeMap,
  renameCollection,
  renameMap,
  restoreMap,
  trashMap,
} from '../../../src/core/commands/maps'
import { setText } from '../../../src/core/commands/set-text'
import { splitOff } from '../../../src/core/commands/split-off'
import { COLLECTION, Garden, plot, refusal } from '../gardens'

test('the first map is the home map; it cannot go into the trash before another takes its place', () => {
  const garden = new Garden()
  const [first, second] = [garden.grow('First'), garden.grow('Second')]
  const home = () => garden.records.need('collection', COLLECTION).homeMap
  expect(home()).toBe(first)
  expect(refusal(() => garden.do((r, m) => trashMap(r, { map: first }, m)))).toContain(
    'This is the home map of the collection.',
  )
  garden.do((r, m) => chooseHomeMap(r, { collection: COLLECTION, map: second }, m))
  garden.do((r, m) => trashMap(r, { map: first }, m))
  garden.do((r, m) => restoreMap(r, { map: first }, m))
  expect(garden.records.need('map', first).trashed).toBe(false)
})

test('a map that was reached through one in the trash gets another doorway, and back with it', () => {
  const garden = new Garden()
  garden.grow('Home')
  const map = garden.grow('Garden\nSpring\n  Sow')
  garden.do((r, m) => splitOff(r, { topic: garden.topic('Spring') }, m))
  const doorway = garden.records.need('topic', garden.records.children(garden.topic('Garden'))[0]!.id)
  garden.do((r, m) => trashMap(r, { map }, m))
  expect(garden.records.need('map', doorway.opensMap).homeDoorway).toBeNull()
})

test('maps and collections need a name', () => {
  const garden = new Garden()
  const map = garden.grow('Garden')
  expect(refusal(() => garden.do((r, m) => renameMap(r, { map, title: '  ' }, m)))).toBe('A map needs a name.')
  expect(refusal(() => garden.do((r, m) => renameCollection(r, { collection: COLLECTION, title: '\n' }, m)))).toBe(
    'A collection needs a name.',
  )
  garden.do((r, m) => renameCollection(r, { collection: COLLECTION, title: ' Bog ' }, m))
  expect(garden.records.need('collection', COLLECTION).title).toBe('Bog')
  expect(
    garden.do((r, m) => makeMap(r, { collection: COLLECTION, title: 'x'.repeat(80) }, m)).change.label.length,
  ).toBeLessThan(60)
})

test('map, root and doorway are renamed together while they carry one name', () => {
  const { garden } = plot()
  garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Summer') }, newIds))
  const map = [...garden.records.all('map')].find(({ title }) => title === 'Summer')!
  garden.do((records, newIds) => renameMap(records, { map: map.id, title: 'High summer' }, newIds))
  expect(garden.records.root(map.id)!.text).toBe('High summer')
  expect(garden.records.need('topic', map.homeDoorway).text).toBe('High summer')
  garden.do((records, newIds) =>
    setText(records, { topic: garden.records.root(map.id)!.id, text: 'Midsummer' }, newIds),
  )
  expect(garden.records.need('map', map.id).title).toBe('Midsummer')
})
