import { expect, test } from 'vitest'
import { prepareChange } from '../../../src/core/changes/prepare'
import { bringBack } from '../../../src/core/commands/bring-back'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { splitOff } from '../../../src/core/commands/split-off'
import { copyToPlace, pourToPlace, putToPlace } from '../../../src/core/commands/to-place'
import { layoutMap } from '../../../src/core/layout/map-layout'
import { drawerAround, toPlaceOn } from '../../../src/core/tree/to-place'
import { topicsInOrder } from '../../../src/core/tree/walk'
import { CONTEXT, plot, refusal } from '../gardens'

const texts = (topics: Iterable<{ text: string }>) => [...topics].map(({ text }) => text)

test('what is poured out waits beside the map, and stands on it when it is placed', () => {
  const { garden, map } = plot()
  const before = texts(topicsInOrder(garden.records, map))
  const { select } = garden.do((records, newIds) =>
    pourToPlace(records, { map, text: 'A hedge\n  of hazel\nBees\n' }, newIds),
  )
  expect(texts(toPlaceOn(garden.records, map))).toEqual(['A hedge', 'Bees'])
  expect(texts(topicsInOrder(garden.records, map))).toEqual(before)
  expect(layoutMap(garden.records, map, CONTEXT).boxes).toHaveLength(before.length)
  expect(drawerAround(garden.records, garden.records.need('topic', garden.topic('of hazel')))).toBe(map)

  garden.do((records, newIds) =>
    moveTopics(records, { topics: [select[0]!], parent: garden.topic('Spring'), after: 'last', side: null }, newIds),
  )
  expect(texts(toPlaceOn(garden.records, map))).toEqual(['Bees'])
  expect(texts(topicsInOrder(garden.records, map))).toContain('of hazel')
  expect(drawerAround(garden.records, garden.records.need('topic', garden.topic('of hazel')))).toBeNull()
})

test('a branch is put away whole, and copies leave it where it is', () => {
  const { garden, map } = plot()
  garden.do((records, newIds) => copyToPlace(records, { topics: [garden.topic('Dwarf')], map }, newIds))
  expect(texts(toPlaceOn(garden.records, map))).toEqual(['Dwarf'])
  garden.do((records, newIds) => putToPlace(records, { topics: [garden.topic('Pick beans')], map }, newIds))
  const [, beans] = toPlaceOn(garden.records, map)
  expect(texts(garden.records.children(beans!.id))).toEqual(['Dwarf', 'Climbing'])
  expect(texts(topicsInOrder(garden.records, map))).not.toContain('Climbing')
  expect(refusal(() => garden.do((r, m) => putToPlace(r, { topics: [garden.topic('Garden')], map }, m)))).toBe(
    'The root of a map stays where it is.',
  )
  expect(refusal(() => garden.do((r, m) => pourToPlace(r, { map, text: ' \n ' }, m)))).toBe('There is no text to pour.')
})

test('what waits on a child map comes along when that is brought back', () => {
  const { garden, map } = plot()
  const spring = garden.topic('Spring')
  garden.do((records, newIds) => splitOff(records, { topic: spring }, newIds))
  const child = garden.records.need('topic', spring).opensMap!
  garden.do((records, newIds) => pourToPlace(records, { map: child, text: 'A hedge' }, newIds))
  garden.do((records, newIds) => bringBack(records, { topic: spring }, newIds))
  expect(texts(toPlaceOn(garden.records, map))).toEqual(['A hedge'])
})

test('two people who put something away at once on a new map lose nothing', () => {
  const { garden, map } = plot()
  const changes = ['Bees', 'A hedge'].map((text) => pourToPlace(garden.records, { map, text }, garden.newIds).change)
  for (const { edits } of changes) expect(prepareChange(garden.records, edits, true).ok).toBe(true)
  expect(texts(toPlaceOn(garden.records, map))).toEqual(['Bees', 'A hedge'])
})
