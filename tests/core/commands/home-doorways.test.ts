import { expect, test } from 'vitest'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { mapsAbove } from '../../../src/core/commands/home-doorways'
import { restoreMap, trashMap } from '../../../src/core/commands/maps'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { restoreTopic } from '../../../src/core/commands/restore-topic'
import { splitOff } from '../../../src/core/commands/split-off'
import type { TopicId } from '../../../src/core/records/ids'
import { Garden, plot } from '../gardens'

function planted() {
  const garden = new Garden()
  const home = garden.grow('Garden\nBeds\n  North\n    Peas\n  South\n    Beans\nShed\n  Tools')
  const split = (text: string) => {
    const topic = garden.topic(text)
    garden.do((r, m) => splitOff(r, { topic }, m))
    return { topic, map: garden.records.need('topic', topic).opensMap! }
  }
  const remove = (...topics: TopicId[]) => garden.do((r, m) => deleteTopics(r, { topics }, m))
  const restore = (topic: TopicId) => garden.do((r, m) => restoreTopic(r, { topic }, m))
  const homeOf = (map: string) => garden.records.need('map', map).homeDoorway
  return { garden, home, split, remove, restore, homeOf }
}

test('a doorway and then its parent can be put into the trash, and the parent comes back', () => {
  const { garden, split, remove, restore, homeOf } = planted()
  const { topic, map } = split('North')
  const beds = garden.topic('Beds')
  remove(topic)
  remove(beds)
  restore(beds)
  expect(homeOf(map)).toBeNull()
  restore(topic)
  expect(homeOf(map)).toBe(topic)
})

test('a branch is deleted with two maps that open each other below it', () => {
  const { garden, split, remove, restore, homeOf } = planted()
  const [north, south] = [split('North'), split('South')]
  const [peas, beans] = [garden.topic('Peas'), garden.topic('Beans')]
  for (const [id, opensMap] of [
    [peas, south.map],
    [beans, north.map],
  ] as const)
    garden.records.put('topic', { ...garden.records.need('topic', id), opensMap })
  remove(garden.topic('Beds'))
  const ways = [homeOf(north.map), homeOf(south.map)]
  expect(ways.filter((way) => way === null)).toHaveLength(1)
  restore(garden.records.need('topic', north.topic).place.map === '' ? north.topic : bedsOf(garden))
  expect(mapsAbove(garden.records, north.map).length + mapsAbove(garden.records, south.map).length).toBeGreaterThan(0)
})
const bedsOf = (garden: Garden) => [...garden.records.all('topic')].find(({ text }) => text === 'Beds')!.id

test('a map that comes out of the trash is the way to its children again', () => {
  const { garden, split, homeOf } = planted()
  const beds = split('Beds')
  const north = split('North')
  garden.do((r, m) => trashMap(r, { map: beds.map }, m))
  expect(homeOf(north.map)).toBeNull()
  garden.do((r, m) => restoreMap(r, { map: beds.map }, m))
  expect(homeOf(beds.map)).toBe(beds.topic)
  expect(homeOf(north.map)).toBe(north.topic)
})

test('the home map cannot go, and a branch cannot move into a map that it opens', () => {
  const { garden, home, split } = planted()
  expect(() => trashMap(garden.records, { map: home }, garden.newIds)).toThrow('home map')
  const { topic } = split('Beds')
  const inside = garden.topic('North')
  expect(() =>
    moveTopics(garden.records, { topics: [topic], parent: inside, after: 'last', side: null }, garden.newIds),
  ).toThrow('This branch opens the map Beds')
})

test('home doorways never close a loop', () => {
  const { garden } = plot()
  garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Summer') }, newIds))
  const child = [...garden.records.all('map')].find(({ title }) => title === 'Summer')!
  const intoItself = () =>
    garden.do((records, newIds) =>
      moveTopics(
        records,
        { topics: [child.homeDoorway!], parent: garden.topic('Pick beans'), after: null, side: null },
        newIds,
      ),
    )
  expect(intoItself).toThrow('This branch opens the map Summer, so it cannot move into it.')
})
